<?php

declare(strict_types=1);

namespace Tests\Feature\Tally;

use App\Models\Tally;
use Tests\TestCase;

/** What is decided once is decided in all tallies to come, and can be taken back there. */
final class RulingsAcrossTalliesTest extends TestCase
{
    public function test_an_undone_ruling_opens_its_findings_in_the_newest_tally_and_in_those_after_it(): void
    {
        $first = $this->tallied();
        $asked = $this->rule($first, ['scope' => 'class', 'target' => 'extra', 'decision' => 'ask', 'askedId' => $this->owner->id]);
        $pattern = $this->rule($first, ['scope' => 'pattern', 'target' => '1', 'decision' => 'expected', 'reason' => 'agreed']);
        $second = $this->again();
        $third = $this->again();

        $words = 'holder: capitals differ';
        $extra = 'rows: in the target, not in the source';
        self::assertSame([[$pattern, 1, 1, false, $words], [$asked, 1, 1, false, $extra]], $this->acts($third));
        $this->api('GET', "/tallies/{$third->id}/records/{$this->sequence($third, 'OT,9')}")
            ->assertJsonPath('rulings.0.id', $asked)
            ->assertJsonPath('rulings.0.asked', 'Tove Lindqvist');
        self::assertSame([1], array_column($this->objects($this->actingAs($this->owner)->api('GET', '/for-me'), 'asked'), 'findings'));

        $this->actingAs($this->analyst);
        $this->api('POST', "/rulings/{$asked}/undo")->assertCreated()->assertJson(['findings' => 1]);
        self::assertSame(
            ['ask', 'ask', 'open'],
            array_map(
                fn(Tally $tally): mixed => $this->api('GET', "/tallies/{$tally->id}/records/{$this->sequence($tally, 'OT,9')}")->json(
                    'decision',
                ),
                [$first, $second, $third],
            ),
        );
        self::assertSame([], $this->objects($this->actingAs($this->owner)->api('GET', '/for-me'), 'asked'));
        self::assertSame([$asked, 1, 0, true, $extra], $this->acts($third)[2]);
        self::assertSame([$asked, 1, 1, false, $extra], $this->acts($second)[1]);
        // What was made anew from all acts is the same, and the next tally takes nothing over that was taken back.
        $this->app->make(\App\Rulings\EffectiveRulings::class)->rebuild($third);
        self::assertSame([$asked, 1, 0, true, $extra], $this->acts($third)[2]);
        $fourth = $this->again();
        $this->api('GET', "/tallies/{$fourth->id}/records/{$this->sequence($fourth, 'OT,9')}")->assertJson(['decision' => 'open']);
        self::assertSame([[$pattern, 1, 1, false, $words]], $this->acts($fourth));
    }

    public function test_a_pattern_that_was_taken_over_is_opened_block_by_block(): void
    {
        $rows = static fn(string $column, string $name): string => "basin,berth,{$column},fee,loaded\n".
            implode('', array_map(static fn(int $row): string => "KB,{$row},{$name} {$row},1,t\n", range(1, 600)));
        $first = $this->tallied($rows('holder', 'Anna'), $rows('owner', 'ANNA'));
        $act = $this->rule($first, ['scope' => 'pattern', 'target' => '1', 'decision' => 'expected', 'reason' => 'agreed']);
        $second = $this->again();
        $this->rule($second, ['scope' => 'cell', 'target' => '300', 'decision' => 'defect', 'reason' => 'not this one']);
        $this->api('POST', "/rulings/{$act}/undo")->assertCreated()->assertJson(['findings' => 599]);

        self::assertSame(
            ['findings' => 600, 'open' => 599, 'expected' => 0, 'defect' => 1, 'ask' => 0],
            $this->api('GET', "/tallies/{$second->id}")->json('patterns.0.standing'),
        );
    }

    public function test_on_an_older_tally_nothing_is_ruled_any_more(): void
    {
        $first = $this->tallied();
        $this->again();

        $this->api('POST', "/tallies/{$first->id}/rulings", [
            'scope' => 'class',
            'target' => 'extra',
            'decision' => 'expected',
            'reason' => 'agreed',
            'seenAct' => 0,
        ])
            ->assertConflict()
            ->assertJson([
                'code' => 'overtaken',
                'detail' => 'Tally 2 is newer than this one. Rule there: what you decide here would not reach it.',
            ]);
        self::assertSame(0, $first->rulings()->count());
    }

    public function test_what_became_of_the_rulings_before_adds_up(): void
    {
        $codes = static fn(string $column, string ...$codes): string => "basin,berth,{$column},fee,loaded\n".
            implode(
                '',
                array_map(static fn(int|string $row, string $code): string => "KB,{$row},{$code},1,t\n", array_keys($codes), $codes),
            );
        $first = $this->tallied($codes('holder', 'Anna', 'Bert', 'Cleo', 'x'), $codes('owner', 'ANNA', 'BERT', 'CLEO', 'y'));
        $upTo = $this->number($this->api('GET', "/tallies/{$first->id}"), 'patterns.0.number');
        $this->rule($first, [
            'scope' => 'pattern',
            'target' => (string) $upTo,
            'decision' => 'expected',
            'reason' => 'agreed',
            'holdsUpTo' => 4,
        ]);
        $this->rule($first, ['scope' => 'pattern', 'target' => (string) (3 - $upTo), 'decision' => 'defect', 'reason' => 'wrong']);
        $this->deliver('source', $codes('holder', 'Anna', 'Bert', 'Cora', 'Dirk'), 'old.csv');
        $this->deliver('target', $codes('owner', 'ANNA', 'BERT', 'CORA', 'DIRK'), 'new.csv');
        $second = $this->again();

        // Three of the pattern stand, one of them with another name; the fourth was ruled on as another difference.
        $said = fn(Tally $tally): mixed => $this->api('GET', "/tallies/{$tally->id}")->json('carryOver');
        self::assertEquals(
            [
                'from' => 1,
                'ruled' => 4,
                'carried' => 3,
                'changed' => 1,
                'beyond' => 0,
                'takenOn' => 0,
                'gone' => 0,
                'settledBy' => 'data',
                'hasOtherKey' => false,
            ],
            $said($second),
        );
        $this->deliver('source', $codes('holder', 'Anna', 'Bert', 'Cora', 'Dirk', 'Ella'), 'old.csv');
        $this->deliver('target', $codes('owner', 'ANNA', 'Bert', 'CORA', 'DIRK', 'ELLA', 'F'), 'new.csv');
        $third = $this->again();
        self::assertEquals(
            [
                'from' => 2,
                'ruled' => 3,
                'carried' => 2,
                'changed' => 0,
                'beyond' => 0,
                'takenOn' => 2,
                'gone' => 1,
                'settledBy' => 'data',
                'hasOtherKey' => false,
            ],
            $said($third),
        );
        $this->deliver('source', $codes('holder', 'Anna', 'Bert', 'Cora', 'Dirk', 'Ella'), 'old.csv');
        $this->deliver('target', $codes('owner', 'ANNA', 'BERT', 'CORA', 'DIRK', 'ELLA'), 'new.csv');
        self::assertEquals(
            [
                'from' => 3,
                'ruled' => 4,
                'carried' => 0,
                'changed' => 0,
                'beyond' => 4,
                'takenOn' => 0,
                'gone' => 0,
                'settledBy' => 'data',
                'hasOtherKey' => false,
            ],
            $said($this->again()),
        );
    }

    /** @return list<list<mixed>> number, tally, findings on which it stands, whether it was undone, and what it was about */
    private function acts(Tally $tally): array
    {
        return array_map(
            static fn(array $act): array => [$act['id'], $act['tally'], $act['standing'], $act['undone'], $act['words']],
            $this->objects($this->api('GET', "/tallies/{$tally->id}/rulings"), 'items'),
        );
    }

    /** @param array<string, mixed> $act */
    private function rule(Tally $tally, array $act): int
    {
        return $this->number(
            $this->api('POST', "/tallies/{$tally->id}/rulings", ['reason' => '', 'seenAct' => PHP_INT_MAX, ...$act])->assertCreated(),
            'id',
        );
    }

    /** The same deliveries under the same plan, once more. */
    private function again(): Tally
    {
        $this->actingAs($this->analyst)->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();

        return $this->dataset->latestTally() ?? self::fail('There is no tally.');
    }

    private function sequence(Tally $tally, string $key): int
    {
        return $this->number($this->api('GET', "/tallies/{$tally->id}/keys?find={$key}"), 'items.0.sequence');
    }
}
