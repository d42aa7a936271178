<?php

declare(strict_types=1);

namespace Tests\Feature\Review;

use App\Models\Ruling;
use App\Models\Tally;
use App\Rulings\EffectiveRulings;
use Illuminate\Database\QueryException;
use Illuminate\Support\Facades\DB;
use Tests\TestCase;

/** Acts of ruling, and what stands because of them. */
final class RulingTest extends TestCase
{
    public function test_a_ruling_on_a_pattern_covers_all_of_it_and_a_later_one_on_a_cell_stands_there(): void
    {
        $tally = $this->tallied($this->repeatedDifferences(5), $this->repeatedDifferences(5, 'X'));
        $this->rule($tally, 'pattern', '1', 'expected', 'codes of the new register');
        self::assertSame(['findings' => 5, 'open' => 0, 'expected' => 5, 'defect' => 0, 'ask' => 0], $this->standing($tally));

        $this->rule($tally, 'cell', '3', 'defect');
        self::assertSame(['findings' => 5, 'open' => 0, 'expected' => 4, 'defect' => 1, 'ask' => 0], $this->standing($tally));
        self::assertSame(['expected', 'expected', 'defect', 'expected', 'expected'], $this->decisions($tally));
        $this->rule($tally, 'pattern', '1', 'ask');
        self::assertSame(['ask', 'ask', 'ask', 'ask', 'ask'], $this->decisions($tally));
        $this->api('GET', "/tallies/{$tally->id}/rulings")
            ->assertOk()
            ->assertJsonCount(3, 'items')
            ->assertJson(['items' => [2 => ['findings' => 5, 'reason' => 'codes of the new register', 'person' => 'Ruth Osei']]]);
    }

    public function test_undo_is_an_act_and_what_stood_before_stands_again(): void
    {
        $tally = $this->tallied($this->repeatedDifferences(3), $this->repeatedDifferences(3, 'X'));
        $this->rule($tally, 'cell', '2', 'defect');
        $all = $this->rule($tally, 'pattern', '1', 'expected');
        $this->api('POST', "/rulings/{$all}/undo")->assertCreated()->assertJson(['scope' => 'undo', 'target' => (string) $all]);

        self::assertSame(['open', 'defect', 'open'], $this->decisions($tally));
        $this->api('POST', "/rulings/{$all}/undo")->assertConflict()->assertJson(['code' => 'undone-already']);
        self::assertSame(3, Ruling::query()->count());
    }

    public function test_rows_are_ruled_on_one_by_one_and_by_class_but_a_changed_row_by_its_cells(): void
    {
        $tally = $this->tallied();
        $this->rule($tally, 'class', 'repeated', 'expected');
        $this->rule($tally, 'row', '5', 'ask');

        self::assertSame(
            ['ask', 'expected'],
            array_column((array) $this->api('GET', "/tallies/{$tally->id}/findings?class=repeated")->json('items'), 'decision'),
        );
        $this->api('POST', "/tallies/{$tally->id}/rulings", [
            'scope' => 'row',
            'target' => '1',
            'decision' => 'expected',
            'reason' => 'as agreed',
            'seenAct' => 2,
        ])->assertNotFound();
        $this->api('POST', "/tallies/{$tally->id}/rulings", [
            'scope' => 'class',
            'target' => 'changed',
            'decision' => 'expected',
            'reason' => 'as agreed',
            'seenAct' => 2,
        ])->assertNotFound();
    }

    public function test_standings_can_be_made_again_from_the_acts_alone(): void
    {
        $tally = $this->tallied($this->repeatedDifferences(4), $this->repeatedDifferences(4, 'X'));
        $this->rule($tally, 'pattern', '1', 'expected');
        $this->rule($tally, 'cell', '1', 'defect');
        $this->api('POST', '/rulings/'.$this->rule($tally, 'cell', '2', 'ask').'/undo');
        $before = [
            DB::table('standing_findings')->orderBy('group')->orderBy('ordinal')->get()->toJson(),
            DB::table('standing_acts')->orderBy('ruling_id')->get()->toJson(),
            DB::table('standing_counts')->orderBy('group')->get()->toJson(),
        ];
        DB::table('standings')->delete();
        DB::table('standing_counts')->update(['expected' => 0, 'defect' => 0]);

        app(EffectiveRulings::class)->rebuild($tally);

        self::assertSame($before, [
            DB::table('standing_findings')->orderBy('group')->orderBy('ordinal')->get()->toJson(),
            DB::table('standing_acts')->orderBy('ruling_id')->get()->toJson(),
            DB::table('standing_counts')->orderBy('group')->get()->toJson(),
        ]);
    }

    public function test_a_double_click_enters_one_act(): void
    {
        $tally = $this->tallied();
        $act = ['scope' => 'class', 'target' => 'repeated', 'decision' => 'expected', 'reason' => 'as agreed', 'seenAct' => 0];
        $ids = [
            $this->number($this->api('POST', "/tallies/{$tally->id}/rulings", $act), 'id'),
            $this->number($this->api('POST', "/tallies/{$tally->id}/rulings", $act), 'id'),
            // Said again on purpose, for another reason: that is another act.
            $this->number($this->api('POST', "/tallies/{$tally->id}/rulings", [...$act, 'reason' => 'as agreed with Tove']), 'id'),
        ];

        self::assertSame([1, 1, 2], $ids);
    }

    public function test_who_did_not_see_the_other_ruling_is_shown_it_and_enters_nothing(): void
    {
        $tally = $this->tallied();
        $this->actingAs($this->owner);
        $this->rule($tally, 'row', '5', 'defect', 'ticket 118');
        $this->actingAs($this->analyst);

        $this->api('POST', "/tallies/{$tally->id}/rulings", [
            'scope' => 'row',
            'target' => '5',
            'decision' => 'expected',
            'reason' => 'as agreed',
            'seenAct' => 0,
        ])
            ->assertConflict()
            ->assertJson(['code' => 'ruled-meanwhile'])
            ->assertSee('Tove Lindqvist ruled on this tally meanwhile: defect on 1 findings');
        self::assertSame(1, Ruling::query()->count());
        $this->rule($tally, 'row', '5', 'expected');
    }

    public function test_who_rules_while_another_ruling_is_being_entered_waits_for_it(): void
    {
        $tally = $this->tallied();
        config(['database.connections.another' => config('database.connections.application')]);
        $another = DB::connection('another');
        $another->beginTransaction();
        EffectiveRulings::hold($another, $tally->id);
        // Longer than anybody would wait for a lock that nobody holds.
        DB::statement("SET lock_timeout = '100ms'");
        $act = ['scope' => 'row', 'target' => '5', 'decision' => 'expected', 'reason' => 'as agreed', 'seenAct' => 0];
        try {
            $this->withoutExceptionHandling()->postJson("/api/v1/tallies/{$tally->id}/rulings", $act);
            self::fail('It was entered beside another one.');
        } catch (QueryException $waited) {
            self::assertSame('55P03', $waited->getCode(), 'It waited for the lock.');
        }
        $another->rollBack();
        DB::purge('another');

        self::assertSame(0, Ruling::query()->count());
        $this->withExceptionHandling()->postJson("/api/v1/tallies/{$tally->id}/rulings", $act)->assertCreated();
    }

    private function repeatedDifferences(int $rows, string $status = 'A'): string
    {
        $column = $status === 'A' ? 'holder' : 'owner';

        return "basin,berth,{$column},fee,loaded\n".
            implode('', array_map(static fn(int $row): string => "KB,{$row},{$status},1,t\n", range(1, $rows)));
    }

    private function rule(Tally $tally, string $scope, string $target, string $decision, string $reason = 'as agreed'): int
    {
        return $this->number(
            $this->api('POST', "/tallies/{$tally->id}/rulings", [
                'scope' => $scope,
                'target' => $target,
                'decision' => $decision,
                'reason' => $reason,
                'askedId' => $this->owner->id,
                'seenAct' => Ruling::query()->orderByDesc('id')->first()->id ?? 0,
            ])->assertCreated(),
            'id',
        );
    }

    private function standing(Tally $tally): mixed
    {
        return $this->api('GET', "/tallies/{$tally->id}")->json('patterns.0.standing');
    }

    /** @return list<mixed> */
    private function decisions(Tally $tally): array
    {
        return array_column($this->objects($this->api('GET', "/tallies/{$tally->id}/findings?pattern=1"), 'items'), 'decision');
    }
}
