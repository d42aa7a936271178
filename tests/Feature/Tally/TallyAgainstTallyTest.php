<?php

declare(strict_types=1);

namespace Tests\Feature\Tally;

use App\Models\Tally;
use Illuminate\Testing\TestResponse;
use Tests\TestCase;

/** From tally to tally: what is carried over, what came, went and came back. */
final class TallyAgainstTallyTest extends TestCase
{
    public function test_rulings_are_carried_over_where_the_values_are_the_same_and_reopened_where_they_are_not(): void
    {
        $first = $this->tallied();
        $this->actingAs($this->owner);
        foreach ($this->objects($this->api('GET', "/tallies/{$first->id}"), 'patterns') as $pattern) {
            self::assertIsInt($pattern['number']);
            $this->rule($first, 'pattern', (string) $pattern['number'], 'expected', 'known');
        }
        $extra = $this->number($this->rule($first, 'class', 'extra', 'defect', 'not ours'), 'id');
        $undone = $this->number($this->rule($first, 'class', 'repeated', 'expected', 'by mistake'), 'id');
        $this->api('POST', "/rulings/{$undone}/undo")->assertCreated();

        // KB,014 is written otherwise now, LM,2 got its fee, and one row more is missing.
        $this->actingAs($this->analyst);
        $this->deliver(
            'target',
            "basin,berth,owner,fee,loaded\nKB,015,Ann Lee,10.5,t\nKB,014,Ezekiel THORNØY,1412.60,t\nLM,1,Bríd ".
                "O'Marrow,7.00,t\nLM,2,Ilse,20.00,t\nOT,9,Wanda,1,t\n",
            'new.csv',
        );
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
        $second = $this->dataset->latestTally() ?? self::fail('There is no second tally.');

        $this->api('GET', "/tallies/{$second->id}")
            ->assertOk()
            ->assertJson(['carryOver' => ['from' => 1, 'ruled' => 6, 'carried' => 4, 'changed' => 1, 'hasOtherKey' => false]]);
        self::assertEquals(
            [['LM,2', 'fee', 'blanked', '20.00', '', 'expected', 'known', 'Tove Lindqvist']],
            array_map(
                static fn(array $left): array => array_values(
                    array_intersect_key($left, array_flip(['key', 'column', 'cause', 'source', 'target', 'decision', 'reason', 'by'])),
                ),
                $this->objects($this->api('GET', "/tallies/{$second->id}/rulings-left-behind"), 'items'),
            ),
        );
        $decisions = [];
        foreach (['KB,014' => 'holder', 'KB,015' => 'holder', 'LM,1' => 'fee'] as $key => $column) {
            $record = $this->record($second, $key);
            foreach ($this->objects($record, 'fields') as $field) {
                if (is_array($field['finding']) && $field['source'] === $column) {
                    $decisions[$key] = [$field['finding']['decision'], $field['finding']['earlier']];
                }
            }
        }
        $earlier = ['tally' => 1, 'decision' => 'expected', 'reason' => 'known', 'by' => 'Tove Lindqvist', 'isBeyond' => false];
        self::assertEquals(
            [
                'KB,014' => ['open', $earlier + ['isChanged' => true]],
                'KB,015' => ['expected', $earlier + ['isChanged' => false]],
                'LM,1' => ['expected', $earlier + ['isChanged' => false]],
            ],
            $decisions,
        );
        $this->record($second, 'OT,9')->assertJson(['decision' => 'defect', 'earlier' => ['reason' => 'not ours']]);
        // What is open again can be listed, and what an act on the tally before still covers.
        self::assertSame(['KB,014'], $this->keys($second, 'of=cells&ruling=reopened'));
        self::assertSame(['KB,014'], $this->keys($second, 'ruling=reopened'));
        self::assertSame(['OT,9'], $this->keys($second, "class=extra&act={$extra}"));
        self::assertSame([], $this->keys($second, "act={$undone}"));
        // What was undone is not taken over, and a new ruling stands before the old one.
        $this->record($second, 'NQ,7')->assertJson(['decision' => 'open', 'earlier' => null]);
        $this->actingAs($this->owner);
        $this->rule($second, 'class', 'extra', 'open', 'look again');
        $this->record($second, 'OT,9')->assertJson(['decision' => 'open']);
    }

    /** @return list<mixed> of the findings of a filter */
    private function keys(Tally $tally, string $filter): array
    {
        return array_column($this->objects($this->api('GET', "/tallies/{$tally->id}/findings?{$filter}"), 'items'), 'key');
    }

    public function test_a_ruling_on_a_pattern_holds_for_tallies_to_come_as_far_as_it_was_meant_to(): void
    {
        $codes = static fn(string $column, string ...$codes): string => "basin,berth,{$column},fee,loaded\n".
            implode(
                '',
                array_map(static fn(int|string $berth, string $code): string => "KB,{$berth},{$code},1,t\n", array_keys($codes), $codes),
            );
        $first = $this->tallied($codes('holder', 'Anna', 'Bert', 'Cleo'), $codes('owner', 'ANNA', 'BERT', 'CLEO'));
        $this->actingAs($this->owner);
        $this->rule($first, 'pattern', '1', 'expected', 'capitals are agreed', ['holdsUpTo' => 4]);
        $this->rule($first, 'cell', '2', 'defect', 'not this one');
        $next = function (string $source, string $target): array {
            $this->actingAs($this->analyst);
            $this->deliver('source', $source, 'old.csv');
            $this->deliver('target', $target, 'new.csv');
            $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
            $tally = $this->dataset->latestTally() ?? self::fail('There is no tally.');

            return [
                $tally,
                array_map(
                    static fn(array $cell): string => (is_string($cell['decision']) ? $cell['decision'] : '').
                        (data_get($cell, 'earlier.isBeyond') === true ? ' again' : ''),
                    $this->objects($this->api('GET', "/tallies/{$tally->id}/findings?of=cells"), 'items'),
                ),
            ];
        };

        // One is new, and one has other values in the same pattern: four are what the ruling was meant for.
        self::assertSame(
            ['expected', 'defect', 'expected', 'expected'],
            $next($codes('holder', 'Anna', 'Bert', 'Cora', 'Dirk'), $codes('owner', 'ANNA', 'BERT', 'CORA', 'DIRK'))[1],
        );
        // Five are too many: all of the pattern opens, but what was ruled on by itself.
        [$third, $decisions] = $next(
            $codes('holder', 'Anna', 'Bert', 'Cora', 'Dirk', 'Ella'),
            $codes('owner', 'ANNA', 'BERT', 'CORA', 'DIRK', 'ELLA'),
        );
        self::assertSame(['open again', 'defect', 'open again', 'open again', 'open again'], $decisions);

        $this->rule($third, 'pattern', '1', 'ask', 'only these', [
            'holdsFor' => [['source' => 'Anna', 'target' => 'ANNA'], ['source' => 'Finn', 'target' => 'FINN']],
        ]);
        self::assertSame(
            ['ask', 'ask', 'open'],
            $next($codes('holder', 'Finn', 'Anna', 'Gwen'), $codes('owner', 'FINN', 'ANNA', 'GWEN'))[1],
        );
    }

    public function test_with_another_key_rulings_follow_the_delivered_records(): void
    {
        $first = $this->tallied();
        $this->actingAs($this->owner);
        $this->rule($first, 'class', 'extra', 'defect', 'not ours');
        $this->actingAs($this->analyst);
        $same = static fn(string $name): array => ['source' => $name, 'target' => $name];
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", [
            'key' => [$same('berth'), $same('basin')],
            'columnPairs' => [['source' => 'holder', 'target' => 'owner'], $same('fee')],
            'leftOut' => ['source' => [], 'target' => ['loaded']],
        ])->assertOk();
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
        $second = $this->dataset->latestTally() ?? self::fail('There is no second tally.');

        $this->api('GET', "/tallies/{$second->id}")->assertJson([
            'carryOver' => ['ruled' => 1, 'carried' => 1, 'changed' => 0, 'hasOtherKey' => true],
        ]);
        $this->record($second, '9,OT')->assertJson(['decision' => 'defect']);
        $this->api('GET', "/tallies/{$second->id}/rulings-left-behind")->assertExactJson(['items' => [], 'next' => null]);
        $this->api('GET', "/tallies/{$second->id}/against/{$first->id}")->assertOk()->assertJsonPath('comparison.hasOtherKey', true);
    }

    public function test_two_tallies_are_compared_finding_by_finding(): void
    {
        $first = $this->tallied();
        $this->deliver(
            'target',
            "basin,berth,owner,fee,loaded\nKB,015,Ann Lee,10.5,t\nKB,014,Ezekiel Thornøy,1412.60,t\nLM,1,Bríd ".
                "O'Marrow,8.00,t\nOT,9,Wanda,1,t\n",
            'new.csv',
        );
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
        $second = $this->dataset->latestTally() ?? self::fail('There is no second tally.');
        $this->deliver('target', self::NEW, 'new.csv');
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
        $third = $this->dataset->tallies()->where('number', 3)->sole();

        $moved = fn(Tally $later, Tally $earlier): array => $this->moved($later, $earlier);
        self::assertEquals(
            ['settled' => 2, 'new' => 1, 'changed' => 1, 'cameBack' => 0, 'settledBy' => ['data' => 2, 'plan' => 0, 'either' => 0]],
            array_diff_key($moved($second, $first), ['still' => true]),
        );
        // LM,2 was blanked, then missing, and is blanked again.
        self::assertEquals(
            ['settled' => 1, 'new' => 0, 'changed' => 1, 'cameBack' => 2],
            array_diff_key($moved($third, $second), ['still' => true, 'settledBy' => true]),
        );
        $this->api('GET', "/tallies/{$first->id}/against/{$second->id}")
            ->assertConflict()
            ->assertJson(['code' => 'not-comparable']);
    }

    public function test_each_line_is_one_pattern_under_its_own_sentence_and_adds_up(): void
    {
        // Fees ten times too large, and a hundred times; then two are put right, and two of the first turn into the second.
        $times = static fn(int $berth, int $right, int $tens): int => [1, 10, 100][($berth > $right) + ($berth > $tens)];
        $old = "basin,berth,holder,fee\n";
        $new = $later = "basin,berth,owner,fee,loaded\n";
        foreach (range(1, 12) as $berth) {
            $old .= "KB,{$berth},Ezekiel,7{$berth}\n";
            $new .= sprintf("KB,%d,Ezekiel,%d,t\n", $berth, (int) "7{$berth}" * $times($berth, 0, 6));
            $later .= sprintf("KB,%d,Ezekiel,%d,t\n", $berth, (int) "7{$berth}" * $times($berth, 2, 4));
        }
        $first = $this->tallied($old, $new);
        $this->deliver('target', $later, 'new.csv');
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
        $second = $this->dataset->latestTally() ?? self::fail('There is no second tally.');

        $lines = [];
        foreach ($this->objects($this->api('GET', "/tallies/{$second->id}/against/{$first->id}"), 'comparison.groups') as $line) {
            $lines[] = array_diff_key($line, array_flip(['kind', 'cause', 'settledBy', 'earlierPattern', 'laterPattern', 'column']));
        }
        self::assertEqualsCanonicalizing([
            [
                'sentence' => '100 times too large', 'before' => 6, 'settled' => 0, 'still' => 6, 'otherwiseNow' => 0,
                'otherwiseBefore' => 2, 'new' => 0, 'cameBack' => 0, 'now' => 8,
            ],
            [
                'sentence' => '10 times too large', 'before' => 6, 'settled' => 2, 'still' => 2, 'otherwiseNow' => 2,
                'otherwiseBefore' => 0, 'new' => 0, 'cameBack' => 0, 'now' => 2,
            ],
        ], $lines);
    }

    public function test_where_plan_and_deliveries_are_others_the_rules_say_what_settled_a_finding(): void
    {
        $first = $this->tallied();
        $same = static fn(string $name): array => ['source' => $name, 'target' => $name];
        // "Ezekiel" in capitals is let pass now; the fees of KB,015 and LM,2 are put right in the delivery.
        $next = function (array $more) use ($same): Tally {
            $this->api('PUT', "/datasets/{$this->dataset->id}/plan", [
                'key' => [$same('basin'), $same('berth')],
                'columnPairs' => [['source' => 'holder', 'target' => 'owner', 'kind' => 'text', 'forgives' => ['case']], $same('fee')],
                'leftOut' => ['source' => [], 'target' => ['loaded']],
                'sides' => $more,
            ])->assertOk();
            $this->deliver('target', str_replace(['10.5,', 'Ilse,,'], ['10.50,', 'Ilse,20.00,'], self::NEW), 'new.csv');
            $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();

            return $this->dataset->latestTally() ?? self::fail('There is no tally.');
        };

        self::assertEquals(
            ['data' => 2, 'plan' => 1, 'either' => 0],
            $this->moved($next(['source' => ['preparation' => []]]), $first)['settledBy'],
        );
        $step = ['id' => 'a', 'kind' => 'leave-out-rows', 'condition' => ['column' => 'basin', 'test' => 'is', 'value' => 'XX']];
        self::assertEquals(
            ['data' => 0, 'plan' => 1, 'either' => 2],
            $this->moved($next(['source' => ['preparation' => [$step]]]), $first)['settledBy'],
        );
    }

    /**
     * @param  array<string, mixed>  $more
     * @return TestResponse<\Symfony\Component\HttpFoundation\Response>
     */
    private function rule(Tally $tally, string $scope, string $target, string $decision, string $reason, array $more = []): TestResponse
    {
        return $this->api('POST', "/tallies/{$tally->id}/rulings", [
            'scope' => $scope,
            'target' => $target,
            'decision' => $decision,
            'reason' => $reason,
            'askedId' => $this->owner->id,
            'seenAct' => PHP_INT_MAX,
            ...$more,
        ])->assertCreated();
    }

    /** @return TestResponse<\Symfony\Component\HttpFoundation\Response> */
    private function record(Tally $tally, string $key): TestResponse
    {
        $sequence = $this->number($this->api('GET', "/tallies/{$tally->id}/keys?find=".urlencode($key)), 'items.0.sequence');

        return $this->api('GET', "/tallies/{$tally->id}/records/{$sequence}")->assertOk();
    }

    /** @return array<string, int|array<string, int>> */
    private function moved(Tally $later, Tally $earlier): array
    {
        $answer = $this->api('GET', "/tallies/{$later->id}/against/{$earlier->id}")->assertOk();
        $groups = $this->objects($answer, 'comparison.groups');
        $add = static fn(string $path): int => (int) array_sum(
            array_map(static fn(array $group): int => is_int($found = data_get($group, $path)) ? $found : 0, $groups),
        );

        return [
            'still' => $add('still'),
            'settled' => $add('settled'),
            'new' => $add('new'),
            'changed' => $add('otherwiseNow'),
            'cameBack' => $add('cameBack'),
            'settledBy' => [
                'data' => $add('settledBy.data'),
                'plan' => $add('settledBy.plan'),
                'either' => $add('settledBy.either'),
            ],
        ];
    }
}
