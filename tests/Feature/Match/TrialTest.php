<?php

declare(strict_types=1);

namespace Tests\Feature\Match;

use Illuminate\Support\Facades\File;
use Tests\TestCase;

/** What a plan would find, tried on the same keys of both sides. */
final class TrialTest extends TestCase
{
    protected function setUp(): void
    {
        parent::setUp();
        $this->actingAs($this->analyst);
    }

    public function test_a_trial_finds_on_the_same_keys_of_both_sides_what_the_tally_finds_on_all(): void
    {
        $source = $target = "basin,berth,fee\n";
        foreach (range(1, 9_000) as $row) {
            $source .= 'B'.($row % 5).",{$row},{$row}.50\n";
            // Every tenth fee loses its pence; every hundredth row is missing, and rows come in another order.
            $target .=
                $row % 100 === 0
                    ? ''
                    : 'B'.(9_001 - $row) % 5 .','.(9_001 - $row).','.(9_001 - $row).($row % 10 === 3 ? '' : '.5')."\n";
        }
        $this->deliver('source', $source);
        $this->deliver('target', $target);
        $same = static fn(string $name): array => ['source' => $name, 'target' => $name];
        $plan = [
            'key' => [$same('basin'), $same('berth')],
            'columnPairs' => [['kind' => 'number', ...$same('fee')]],
            'leftOut' => ['source' => [], 'target' => []],
        ];
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", $plan)->assertOk();

        $trial = $this->api('GET', "/datasets/{$this->dataset->id}/trial")
            ->assertOk()
            ->assertJson(['isWaiting' => false, 'problem' => null, 'result' => ['isHead' => false, 'oneIn' => 3]]);
        $rows = $this->number($trial, 'result.sampleRows.source');
        self::assertEqualsWithDelta(3_000, $rows, 200);
        // No row is missing but for those that truly are: the same keys were drawn on both sides.
        self::assertEqualsWithDelta($rows / 100, $this->number($trial, 'result.rows.source.missing'), 15);
        self::assertSame(0, $this->number($trial, 'result.rows.target.extra'));
        self::assertSame($rows - $this->number($trial, 'result.rows.source.missing'), $this->number($trial, 'result.rows.source.changed'));

        $forgiving = [...$plan, 'columnPairs' => [['kind' => 'number', 'forgives' => ['number-form'], ...$same('fee')]]];
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", $forgiving)->assertOk();
        $again = $this->api('GET', "/datasets/{$this->dataset->id}/trial")->assertJsonPath('result.sampleRows.source', $rows);
        self::assertEqualsWithDelta($rows / 10, $this->number($again, 'result.rows.source.changed'), 40);
        $again->assertJsonPath('result.patterns.0.source', 'fee');
        // What nobody uses is cleared up: the beginning of both sides stands in until the same keys are drawn again.
        File::cleanDirectory(storage_path('prepared'));
        $this->api('GET', "/datasets/{$this->dataset->id}/trial")->assertJson(['result' => ['isHead' => true]]);
        $this->api('GET', "/datasets/{$this->dataset->id}/trial")->assertJson([
            'problem' => null,
            'result' => ['isHead' => false, 'sampleRows' => ['source' => $rows]],
        ]);
        self::assertSame(
            [],
            array_filter(
                $this->objects($again, 'result.findings'),
                static fn(array $finding): bool => ! in_array($finding['class'], ['changed', 'missing'], true),
            ),
        );
    }

    public function test_a_trial_is_the_beginning_of_both_sides_until_the_rows_of_some_keys_are_drawn(): void
    {
        $this->deliver('source', "basin,fee\nKB,1\nLM,2\n");
        $this->deliver('target', "basin,fee\nKB,1\nLM,3\n");
        $this->api('GET', "/datasets/{$this->dataset->id}/plan")->assertOk();
        config(['queue.default' => 'database']);

        $this->api('GET', "/datasets/{$this->dataset->id}/trial")
            ->assertOk()
            ->assertJson([
                'isWaiting' => true,
                'result' => [
                    'isHead' => true,
                    'oneIn' => null,
                    'rows' => ['source' => ['changed' => 1]],
                    'findings' => [['key' => 'LM', 'sourceLine' => 3, 'cells' => [['column' => 'fee', 'source' => '2', 'target' => '3']]]],
                ],
            ]);
    }
}
