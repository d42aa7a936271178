<?php

declare(strict_types=1);

namespace Tests\Feature\Review;

use App\Models\Tally;
use Illuminate\Support\Facades\File;
use Tests\TestCase;

/** What rules let pass is a list like any other: page by page, looked through, taken away, masked, and named on the record. */
final class ForgivenTest extends TestCase
{
    public function test_each_cell_that_was_counted_is_listed_with_its_row(): void
    {
        $tally = $this->forgiving();
        $said = $this->objects($this->api('GET', "/tallies/{$tally->id}"), 'forgiven');
        self::assertSame(
            [['berth', 120], ['holder', 80], ['fee', 3]],
            array_map(static fn(array $pass): array => [$pass['source'], $pass['cells']], $said),
        );
        $list = "/tallies/{$tally->id}/forgiven";

        $this->api('GET', "{$list}/1?from=119&limit=100")->assertJson([
            'isWaiting' => false,
            'cells' => 120,
            'next' => null,
            'items' => [
                ['place' => 119, 'key' => 'KB,0119', 'sourceLine' => 120, 'targetLine' => 120, 'source' => '0119', 'target' => '119'],
                ['place' => 120, 'key' => 'KB,0120'],
            ],
        ]);
        $this->api('GET', "{$list}/2?limit=2&text=".urlencode('holder 11'))->assertJson([
            'cells' => 8,
            'next' => 3,
            'items' => [['place' => 8, 'key' => 'KB,0011', 'source' => 'Holder 11', 'target' => 'HOLDER 11'], ['place' => 74]],
        ]);
        $this->api('GET', "{$list}/3")->assertJson([
            'cells' => 3,
            'items' => [['key' => 'KB,0040', 'source' => '1.00', 'target' => '1.01']],
        ]);
        $this->api('GET', "{$list}/4")->assertNotFound();
        // What was cleared up is listed again.
        foreach (glob(storage_path('prepared/forgiven-*')) ?: [] as $folder) {
            File::deleteDirectory($folder);
        }
        $this->api('GET', "{$list}/2")->assertJson(['cells' => 80]);
        $csv = $this->get("/api/v1{$list}/2/taken?text=0011")->assertOk()->streamedContent();
        self::assertSame(
            "\"key: basin, berth\",column,cause,source part,source line,target part,target line,source,target\n".
                "\"KB,0011\",holder,case,1,12,1,12,Holder 11,HOLDER 11\n",
            $csv,
        );
    }

    public function test_the_record_says_what_is_let_pass_in_it(): void
    {
        $tally = $this->forgiving();

        $record = $this->api('GET', "/tallies/{$tally->id}/agreeing-row?key[]=KB&key[]=0011");
        self::assertSame(
            [['berth', '0011', '11', 'leading zeros differ'], ['holder', 'Holder 11', 'HOLDER 11', 'capitals differ']],
            array_values(
                array_map(
                    static fn(array $field): array => [$field['source'], $field['sourceValue'], $field['targetValue'], $field['letPass']],
                    array_filter($this->objects($record, 'record.fields'), static fn(array $field): bool => $field['letPass'] !== null),
                ),
            ),
        );
    }

    public function test_values_that_are_masked_are_masked_in_it_too(): void
    {
        $tally = $this->forgiving(['holder']);
        $list = "/tallies/{$tally->id}/forgiven/2";

        $this->api('GET', $list)->assertJson(['items' => [['source' => '(masked)', 'target' => '(masked)']]]);
        $this->api('GET', "{$list}?text=holder")->assertForbidden();
        self::assertStringNotContainsString('HOLDER', $this->get("/api/v1{$list}/taken?as=json-lines")->streamedContent());
    }

    /** @param list<string> $sensitive columns of the source */
    private function forgiving(array $sensitive = []): Tally
    {
        $this->actingAs($this->analyst);
        [$old, $new] = ["basin,berth,holder,fee\n", "basin,berth,holder,fee\n"];
        foreach (range(1, 120) as $berth) {
            $old .= sprintf("KB,%04d,Holder %d,1.00\n", $berth, $berth);
            $new .= sprintf("KB,%d,%s %d,1.%02d\n", $berth, $berth % 3 === 0 ? 'Holder' : 'HOLDER', $berth, $berth % 40 === 0 ? 1 : 0);
        }
        $this->deliver('source', $old, 'old.csv');
        $this->deliver('target', $new, 'new.csv');
        $same = static fn(string $name): array => ['source' => $name, 'target' => $name];
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", [
            'key' => [$same('basin'), [...$same('berth'), 'forgives' => ['leading-zeros']]],
            'columnPairs' => [
                [...$same('holder'), 'kind' => 'text', 'forgives' => ['case']],
                [...$same('fee'), 'kind' => 'number', 'tolerance' => ['by' => 'absolute', 'most' => '0.01']],
            ],
            'leftOut' => ['source' => [], 'target' => []],
            'sensitive' => ['source' => $sensitive, 'target' => []],
        ])->assertOk();
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();

        return $this->dataset->latestTally() ?? self::fail('The run has ended without a tally.');
    }
}
