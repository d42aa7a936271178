<?php

declare(strict_types=1);

namespace Tests\Feature\Review;

use App\Rulings\FindingSet\Filter;
use Tests\TestCase;

/** What is done with the findings that a filter means. */
final class RuleOnFilterTest extends TestCase
{
    use FilteredRegister;

    public function test_a_ruling_on_a_filter_covers_what_was_in_it_then_and_can_be_undone(): void
    {
        $tally = $this->register();
        $single = $this->rule($tally, ['scope' => 'cell', 'target' => '1', 'decision' => 'defect', 'reason' => 'seen by eye']);
        $act = $this->rule($tally, [
            'scope' => 'filter',
            'filter' => ['cause' => 'case', 'ruling' => 'open'],
            'decision' => 'expected',
            'reason' => 'capitals are agreed',
            'ticket' => ' WM-18 ',
            'askedId' => $this->owner->id,
        ]);

        $covered = count(array_filter($this->all($tally, 'cause=case'), static fn(array $cell): bool => $cell['decision'] === 'expected'));
        self::assertGreaterThan(100, $covered);
        $this->api('GET', "/tallies/{$tally->id}/rulings")->assertJson([
            'items' => [
                [
                    'id' => $act,
                    'scope' => 'filter',
                    'findings' => $covered,
                    'ticket' => 'WM-18',
                    'asked' => 'Tove Lindqvist',
                    'filter' => ['of' => 'cells', 'cause' => 'case', 'ruling' => 'open'],
                ],
            ],
        ]);
        self::assertSame(
            $covered,
            array_sum(
                array_column(array_column($this->objects($this->api('GET', "/tallies/{$tally->id}"), 'patterns'), 'standing'), 'expected'),
            ),
        );
        self::assertCount($covered, $this->all($tally, "of=cells&act={$act}"));
        self::assertSame(
            [],
            array_filter($this->all($tally, 'cause=case&ruling=open'), static fn(array $cell): bool => $cell['sequence'] !== 1),
        );
        $this->api('POST', "/tallies/{$tally->id}/rulings", [
            'scope' => 'filter',
            'filter' => ['text' => 'not there'],
            'decision' => 'ask',
            'askedId' => $this->owner->id,
            'reason' => 'as agreed',
            'seenAct' => $act,
        ])
            ->assertConflict()
            ->assertJson(['code' => 'nothing-to-rule-on']);

        $this->api('POST', "/rulings/{$act}/undo")->assertCreated();
        self::assertSame([$single], array_values(array_filter(array_column($this->all($tally, 'of=cells'), 'rulingId'))));
    }

    public function test_a_ruling_on_chosen_rows_covers_the_cells_of_those_that_changed(): void
    {
        $tally = $this->register();
        $rows = $this->all($tally, '');
        $changed = $rows[0];
        $missing = array_values(array_filter($rows, static fn(array $row): bool => $row['class'] === 'missing'))[0];

        $this->rule($tally, [
            'scope' => 'selection',
            'filter' => ['of' => 'rows', 'sequences' => [$changed['sequence'], $missing['sequence']]],
            'decision' => 'ask',
            'askedId' => $this->owner->id,
        ]);

        $asked = array_column(
            array_filter($this->all($tally, 'of=cells'), static fn(array $cell): bool => $cell['decision'] === 'ask'),
            'rowSequence',
        );
        self::assertSame(array_fill(0, is_int($changed['differingCells']) ? $changed['differingCells'] : 0, $changed['sequence']), $asked);
        self::assertSame([$changed['sequence'], $missing['sequence']], array_column($this->all($tally, 'ruling=ask'), 'sequence'));
        self::assertSame(
            ['ask'],
            array_column(
                array_filter($this->all($tally, 'class=missing'), static fn(array $row): bool => $row['sequence'] === $missing['sequence']),
                'decision',
            ),
        );
    }

    public function test_further_columns_of_the_row_stand_beside_a_finding(): void
    {
        $tally = $this->register();

        $this->api(
            'GET',
            "/tallies/{$tally->id}/findings?cellClass=filled&limit=1&beside[]=holder&beside[]=loaded&beside[]=nothing",
        )->assertJson(['items' => [['key' => 'LM,4', 'beside' => ['Ezekiel Thornøy', 't', null]]]]);
        $this->api('GET', "/tallies/{$tally->id}/findings?class=extra&limit=1&beside[]=holder")->assertJson([
            'items' => [['key' => 'KB,t1', 'beside' => ['']]],
        ]);
        $this->api(
            'GET',
            "/tallies/{$tally->id}/findings?".implode('&', array_map(static fn(int $nth): string => "beside[]=c{$nth}", range(1, 5))),
        )->assertUnprocessable();
    }

    public function test_a_filter_is_kept_under_a_name_for_everybody(): void
    {
        $this->register();
        $path = "/datasets/{$this->dataset->id}/kept-filters";
        $kept = $this->number(
            $this->api('POST', $path, [
                'name' => 'Blank holders of KB',
                'filter' => ['source' => '', 'key' => 'KB', 'keyColumn' => 1],
            ])->assertCreated(),
            'id',
        );
        $this->actingAs($this->owner);

        $this->api('GET', $path)
            ->assertOk()
            ->assertJson([
                'items' => [
                    [
                        'name' => 'Blank holders of KB',
                        'filter' => ['of' => 'cells', 'source' => '', 'key' => 'KB', 'keyColumn' => 1],
                        'by' => 'Ruth Osei',
                    ],
                ],
            ]);
        $this->api('POST', $path, ['name' => 'Blank holders of KB', 'filter' => []])
            ->assertConflict()
            ->assertJson(['code' => 'name-taken']);
        $this->api('POST', $path, ['name' => 'Wrong', 'filter' => ['class' => 'lost']])->assertUnprocessable();
        $this->api('DELETE', "/kept-filters/{$kept}")->assertNoContent();
        $this->api('GET', $path)->assertJsonCount(0, 'items');
    }
}
