<?php

declare(strict_types=1);

namespace Tests\Feature\Board;

use App\Models\Dataset;
use Tests\TestCase;

/** Rows of a delivery that several datasets use: none of them falls between. */
final class SharedDeliveriesTest extends TestCase
{
    private const ROWS = "kind,no\nberth,1\nberth,2\nlicence,7\ngate,9\n";

    public function test_rows_that_no_dataset_takes_are_told_by_line_or_by_their_cells(): void
    {
        $this->actingAs($this->analyst);
        $berths = $this->dataset('Berths', 'berth', self::ROWS);
        $path = "/migrations/{$this->migration->id}/shared-deliveries";
        self::assertSame([], $this->api('GET', $path)->assertOk()->json('items'));

        $this->dataset('Licences', 'licence', self::ROWS);
        $shared = $this->api('GET', $path)->assertOk();
        self::assertSame(
            [true, 'source', ['old.csv'], ['Berths', 'Licences'], 4, 1, 3, 0],
            [
                $shared->json('items.0.byPlace'), $shared->json('items.0.side'), $shared->json('items.0.files'),
                array_column((array) $shared->json('items.0.datasets'), 'name'), $shared->json('items.0.found.rows'),
                $shared->json('items.0.found.none'), $shared->json('items.0.found.one'), $shared->json('items.0.found.several'),
            ],
        );
        self::assertSame(
            [5, 'gate | 9'],
            [$shared->json('items.0.found.told.none.0.line'), $shared->json('items.0.found.told.none.0.text')],
        );

        // One of them gets a newer extract, and takes all of it.
        $this->tally($berths, self::ROWS."berth,3\n", []);
        $newer = $this->api('GET', $path);
        self::assertSame(
            [false, 5, 0, 4, 1],
            [
                $newer->json('items.0.byPlace'), $newer->json('items.0.found.rows'), $newer->json('items.0.found.none'),
                $newer->json('items.0.found.one'), $newer->json('items.0.found.several'),
            ],
        );
    }

    public function test_that_a_row_lands_in_one_dataset_alone_is_demanded_by_who_may_and_outlives_a_delivery(): void
    {
        $path = "/migrations/{$this->migration->id}/";
        $demand = ['side' => 'source', 'files' => ['old.csv'], 'isDemanded' => true];
        $this->actingAs($this->analyst);
        $berths = $this->dataset('Berths', 'berth', self::ROWS);
        $this->dataset('Licences', 'licence', self::ROWS);
        self::assertNull($this->api('GET', "{$path}shared-deliveries")->assertOk()->json('items.0.alone'));

        $this->api('POST', "{$path}landing-demands", $demand)->assertNoContent();
        $this->api('POST', "{$path}landing-demands", ['files' => []] + $demand)->assertUnprocessable();
        $this->tally($berths, self::ROWS."berth,3\n", []);
        $shared = $this->api('GET', "{$path}shared-deliveries");
        self::assertSame([true, $this->analyst->name], [$shared->json('items.0.alone.isDemanded'), $shared->json('items.0.alone.person')]);

        $this->api('POST', "{$path}landing-demands", ['isDemanded' => false] + $demand)->assertNoContent();
        self::assertFalse($this->api('GET', "{$path}shared-deliveries")->json('items.0.alone.isDemanded'));
    }

    private function dataset(string $name, string $kind, string $old): Dataset
    {
        $dataset = $this->migration->datasets()->create(['name' => $name]);
        $only = ['id' => 'only', 'kind' => 'keep-rows', 'condition' => ['column' => 'kind', 'test' => 'is', 'value' => $kind]];
        $this->dataset = $dataset;
        $this->deliver('target', "kind,no,of\n{$kind},1,{$name}\n", 'new.csv');
        $this->tally($dataset, $old, [$only]);

        return $dataset;
    }

    /** @param list<array<string, mixed>> $steps */
    private function tally(Dataset $dataset, string $old, array $steps): void
    {
        $this->dataset = $dataset;
        $this->deliver('source', $old, 'old.csv');
        $same = static fn(string $name): array => ['source' => $name, 'target' => $name];
        $this->api('PUT', "/datasets/{$dataset->id}/plan", [
            'key' => [$same('kind'), $same('no')],
            'columnPairs' => [],
            'leftOut' => ['source' => [], 'target' => []],
            ...$steps === [] ? [] : ['sides' => ['source' => ['preparation' => $steps]]],
        ])->assertOk();
        $this->api('POST', "/datasets/{$dataset->id}/runs")->assertCreated();
    }
}
