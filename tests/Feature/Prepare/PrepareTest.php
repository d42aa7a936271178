<?php

declare(strict_types=1);

namespace Tests\Feature\Prepare;

use Tests\TestCase;

/** Steps are tried at once, kept with the plan, and run before the sides meet. */
final class PrepareTest extends TestCase
{
    use WideAndLong;

    public function test_each_step_says_what_it_does_with_its_figures_and_rows_before_and_after(): void
    {
        $trial = $this->trial(
            [
                self::LEAVE_OUT,
                self::FOLD,
                ['id' => 'c', 'kind' => 'leave-out-columns', 'columns' => ['bandd']],
                ['id' => 'd', 'kind' => 'leave-out-blank-rows', 'off' => true],
            ],
            'b',
        );

        $trial->assertJson([
            'rows' => 3,
            'isWhole' => true,
            'readyRows' => 4,
            'steps' => [
                [
                    'sentence' => 'Leave out rows where basin is blank',
                    'problem' => null,
                    'figures' => ['in' => 3, 'leftOut' => 1, 'out' => 2],
                ],
                [
                    'sentence' => 'Columns into rows: apr and may, as month and charge',
                    'columns' => ['basin', 'band', 'month', 'charge'],
                    'figures' => ['in' => 2, 'made' => 2, 'out' => 4],
                ],
                ['problem' => 'There is no column "bandd" at this step. The nearest is "band".', 'figures' => null],
                ['isOff' => true, 'problem' => null, 'figures' => null],
            ],
        ]);
        $trial->assertJson([
            'examples' => [
                'columnsBefore' => ['basin', 'band', 'apr', 'may'],
                'rows' => [
                    [
                        'line' => 2,
                        'before' => ['KB', '9-12 m', '41.20', '41.20'],
                        'after' => [['KB', '9-12 m', 'apr', '41.20'], ['KB', '9-12 m', 'may', '41.20']],
                    ],
                ],
            ],
        ]);
    }

    public function test_after_columns_became_rows_each_row_stands_beside_what_became_of_itself(): void
    {
        $months = array_map(
            static fn(array $row): array => [$row['line'], data_get($row, 'before.2'), data_get($row, 'after.0.2')],
            $this->examples(['kind' => 'tidy-text', 'columns' => ['month'], 'actions' => [['action' => 'upper']]]),
        );
        self::assertSame([[2, 'apr', 'APR'], [2, 'may', 'MAY']], array_slice($months, 0, 2));

        $sum = ['total' => 'sum', 'column' => 'charge', 'into' => 'year'];
        $group = $this->examples(['kind' => 'group-rows', 'by' => ['basin', 'band'], 'totals' => [$sum]])[0];
        self::assertSame([2, 1, 'apr', 'may'], [
            $group['line'], $group['withRows'], data_get($group, 'before.2'), data_get($group, 'with.0.before.2'),
        ]);
        self::assertSame([['KB', '9-12 m', '82.4']], $group['after']);
    }

    public function test_a_step_that_no_longer_fits_a_new_delivery_stops_the_tally_with_a_message(): void
    {
        $this->keep([self::LEAVE_OUT, self::FOLD]);
        $this->deliver('source', str_replace('may', 'mai', self::WIDE));

        $this->api('POST', "/datasets/{$this->dataset->id}/runs")
            ->assertUnprocessable()
            ->assertJson([
                'code' => 'unusable-step',
                'detail' =>
                    'Step 2 of the source (Columns into rows: apr and may, as month and charge): There is no column "may" at this step. '.
                        'The nearest is "mai".',
            ]);
    }

    public function test_a_data_owner_may_try_steps_and_not_keep_them(): void
    {
        $this->actingAs($this->owner);

        $this->trial([self::FOLD], 'b');
        $this->api('POST', "/datasets/{$this->dataset->id}/prepared-sides", ['side' => 'source'])->assertForbidden();
        $this->api('PUT', "/datasets/{$this->dataset->id}/parameters", ['parameters' => []])->assertForbidden();
    }

    public function test_a_step_that_the_schema_does_not_know_is_refused_with_its_place(): void
    {
        $this->api('POST', "/datasets/{$this->dataset->id}/preparation-trials", [
            'side' => 'source',
            'preparation' => [['id' => 'x', 'kind' => 'guess']],
        ])
            ->assertUnprocessable()
            ->assertJson(['code' => 'unusable-plan', 'errors' => [['pointer' => '/sides/source/preparation/0/kind']]]);
    }

    public function test_a_parameter_is_recorded_with_the_tally_and_makes_no_new_plan(): void
    {
        $keep = ['id' => 'p', 'kind' => 'keep-rows', 'condition' => ['column' => 'basin', 'test' => 'is', 'parameter' => 'the basin']];
        $this->keep([$keep, self::FOLD]);
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
        self::assertSame(
            'Step 1 of the source (Keep rows where basin is “the basin” of the tally): The tally has no parameter "the basin". Give it a '.
                'value before you tally.',
            $this->dataset->latestRun()?->problem,
        );

        foreach (['KB', 'LM'] as $basin) {
            $this->api('PUT', "/datasets/{$this->dataset->id}/parameters", ['parameters' => ['the basin' => $basin]])
                ->assertOk()
                ->assertJsonPath('parameters', ['the basin' => $basin]);
            $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
            self::assertSame(['the basin' => $basin], $this->dataset->latestRun()?->parameters);
            self::assertSame(
                [2, 1],
                [$this->dataset->latestTally()?->summary['rows']['source']['prepared'], $this->dataset->planVersions()->count()],
            );
        }
    }

    /**
     * @param  array<string, mixed>  $step  after the one that makes columns into rows
     * @return list<array<array-key, mixed>>
     */
    private function examples(array $step): array
    {
        return $this->objects($this->trial([self::LEAVE_OUT, self::FOLD, ['id' => 's'] + $step], 's'), 'examples.rows');
    }
}
