<?php

declare(strict_types=1);

namespace Tests\Feature\Prove;

use Tests\TestCase;

/** What was compared and what was not, and whether both sides are as the target demands. */
final class PopulationTest extends TestCase
{
    public function test_rows_columns_and_cells_are_told_and_demands_are_checked_before_the_load_and_after_it(): void
    {
        $this->actingAs($this->analyst);
        $same = static fn(string $name): array => ['source' => $name, 'target' => $name];
        $this->deliver('source', "basin,berth,holder,fee,clerk,note\nKB,1,Anna,1.255,a,\nKB,2,Ezekiel,7,b,\nKB,3,,8,c,\n", 'old.csv');
        $this->deliver('target', "basin,berth,owner,fee,loaded\nKB,1,Anna,1.25,t\nKB,2,Ezekie,7,t\nKB,4,,8.125,t\n", 'new.csv');
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", [
            'key' => [$same('basin'), $same('berth')],
            'columnPairs' => [['source' => 'holder', 'target' => 'owner'], $same('fee')],
            'leftOut' => ['source' => ['clerk'], 'target' => ['loaded']],
            'demands' => [
                'owner' => ['required' => true, 'mostCharacters' => 6],
                'fee' => ['decimals' => 2],
                'loaded' => ['allowed' => ['y']],
            ],
        ])->assertOk();
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
        $tally = $this->dataset->latestTally() ?? self::fail((string) $this->dataset->latestRun()?->problem);
        $shown = $this->api('GET', "/tallies/{$tally->id}/population")->assertOk();

        self::assertSame([3, 2, 18, 8, '44.44 %'], array_map(
            static fn(string $what): mixed => $shown->json("sides.source.{$what}"),
            ['prepared', 'compared', 'cells', 'touched', 'share'],
        ));
        self::assertSame(
            ['basin' => 'key', 'berth' => 'key', 'holder' => 'compared', 'fee' => 'compared', 'clerk' => 'left-out', 'note' => 'undecided'],
            array_column((array) $shown->json('sides.source.columns'), 'role', 'name'),
        );
        $counts = [];
        foreach ($this->objects($shown, 'demands.items') as $item) {
            self::assertIsString($item['column']);
            self::assertIsString($item['demand']);
            $counts["{$item['column']} {$item['demand']}"] = array_map(
                static fn(mixed $side): mixed => is_array($side) ? $side['count'] : null,
                [$item['source'], $item['target']],
            );
        }
        self::assertSame(
            [
                'owner mostCharacters' => [1, 0],
                'owner required' => [1, 1],
                'fee decimals' => [1, 1],
                'fee number' => [0, 0],
                // What nothing of the source becomes is checked on the target alone.
                'loaded allowed' => [null, 3],
            ],
            $counts,
        );
    }
}
