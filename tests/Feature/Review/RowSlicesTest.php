<?php

declare(strict_types=1);

namespace Tests\Feature\Review;

use App\Models\Tally;
use Tests\TestCase;

/** How the rows of a class divide: each figure is a filter, and the filter lists just as many. */
final class RowSlicesTest extends TestCase
{
    public function test_each_slice_of_a_class_is_the_list_that_its_filter_finds(): void
    {
        $tally = $this->withParts();
        $lists = $this->objects($this->api('GET', "/tallies/{$tally->id}")->assertOk(), 'rowLists');
        $found = [];
        foreach ($lists as $list) {
            self::assertIsArray($list['slices']);
            foreach ($list['slices'] as $slice) {
                self::assertTrue(is_array($slice) && is_array($slice['filter']) && is_string($slice['words']) && is_string($list['class']));
                $found["{$list['class']}: {$slice['words']}"] = $slice['rows'];
                $filter = http_build_query($slice['filter']);
                $this->api('GET', "/tallies/{$tally->id}/findings/count?{$filter}")->assertExactJson(['total' => $slice['rows']]);
                self::assertCount(
                    is_int($slice['rows']) ? $slice['rows'] : 0,
                    $this->objects($this->api('GET', "/tallies/{$tally->id}/findings?{$filter}"), 'items'),
                );
            }
        }

        self::assertSame(
            [
                'missing: their key stands on the other side in fewer rows' => 1,
                'missing: part 1 of the source: south.csv' => 1,
                'missing: part 2 of the source: north.csv' => 2,
                'extra: their key was left out on the other side by a step' => 1,
                'extra: their bridge joined nothing' => 1,
                'changed: joined by a bridge' => 1,
                'changed: part 1 of the source: south.csv' => 2,
            ],
            $found,
        );
        // What is left of a class is in the report as well, and cells are found by what is said of their rows.
        $this->get("/api/v1/tallies/{$tally->id}/report")->assertOk()->assertSee('part 2 of the source: north.csv');
        $this->api('GET', "/tallies/{$tally->id}/findings/count?of=cells&bridged=yes")->assertExactJson(['total' => 1]);
        $this->api('GET', "/tallies/{$tally->id}/findings?part=2")->assertUnprocessable()->assertJsonPath('errors.0.pointer', '/side');
    }

    public function test_what_the_key_lets_pass_is_in_trial_tally_and_report(): void
    {
        $this->actingAs($this->analyst);
        $this->deliver('source', "basin,berth,fee\nKB,001,1\nKB,002,2\nKB,3,3\n", 'old.csv');
        $this->deliver('target', "basin,berth,fee\nKB,1,1\nKB,2,2\nKB,3,3\n", 'new.csv');
        $same = static fn(string $name): array => ['source' => $name, 'target' => $name];
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", [
            'key' => [$same('basin'), [...$same('berth'), 'forgives' => ['leading-zeros']]],
            'columnPairs' => [],
            'leftOut' => ['source' => ['fee'], 'target' => ['fee']],
        ])->assertOk();
        $this->api('GET', "/datasets/{$this->dataset->id}/trial")
            ->assertJsonPath('result.keyForgiven', [['source' => 'berth', 'sentence' => 'leading zeros differ', 'cells' => 2]])
            ->assertJsonPath('result.notCompared', ['source' => 1, 'target' => 1]);
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
        $tally = $this->dataset->latestTally() ?? throw new \LogicException('The run has ended without a tally.');

        $this->api('GET', "/tallies/{$tally->id}")->assertJsonPath('forgiven', [
            [
                'number' => 1,
                'inKey' => true,
                'source' => 'berth',
                'target' => 'berth',
                'cause' => 'leading-zeros',
                'sentence' => 'leading zeros differ',
                'cells' => 2,
                'examples' => [['source' => '001', 'target' => '1'], ['source' => '002', 'target' => '2']],
            ],
        ]);
        $this->get("/api/v1/tallies/{$tally->id}/report")->assertSeeText('berth, in the key: leading zeros differ');
    }

    private function withParts(): Tally
    {
        $this->actingAs($this->analyst);
        $south = $this->received('south.csv', "basin,berth,fee\nKB,1,1\nKB,1,2\nKB,2,5\nKB,3,5\nKB,8,9\n");
        $north = $this->received('north.csv', "basin,berth,fee\nLM,1,1\nLM,2,1\nLM,3,1\n");
        $this->takeParts('source', $south, $north)->assertAccepted();
        $this->deliver('target', "basin,berth,fee\nKB,1,1\nKB,2,6\nKB,33,6\nKB,8,9\nLM,1,1\nXX,9,1\n", 'new.csv');
        $same = static fn(string $name): array => ['source' => $name, 'target' => $name];
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", [
            'key' => [$same('basin'), $same('berth')],
            'columnPairs' => [$same('fee')],
            'leftOut' => ['source' => [], 'target' => []],
            'bridges' => [
                ['source' => ['KB', '3'], 'target' => ['KB', '33']],
                ['source' => ['LM', '1'], 'target' => ['XX', '9']],
            ],
            'sides' => [
                'source' => [
                    'repeats' => ['policy' => 'pair-in-order'],
                    'preparation' => [
                        [
                            'id' => 's1',
                            'kind' => 'leave-out-rows',
                            'condition' => ['column' => 'fee', 'test' => 'is', 'value' => '9'],
                            'reason' => 'not let any more',
                        ],
                    ],
                ],
                'target' => ['repeats' => ['policy' => 'pair-in-order']],
            ],
        ])->assertOk();
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();

        return $this->dataset->latestTally() ?? throw new \LogicException((string) $this->dataset->latestRun()?->problem);
    }
}
