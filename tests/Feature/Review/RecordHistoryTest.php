<?php

declare(strict_types=1);

namespace Tests\Feature\Review;

use App\Models\Tally;
use Tests\TestCase;

/** What was ever ruled on the row of a key, or on a cell of it, is known on every tally, also what was undone or replaced. */
final class RecordHistoryTest extends TestCase
{
    public function test_every_act_that_covered_a_record_is_listed_in_any_tally(): void
    {
        $first = $this->tallied();
        $this->actingAs($this->owner);
        $this->rule($first, 'class', ['target' => 'missing', 'reason' => 'never sent']);
        $lost = $this->rule($first, 'row', ['target' => $this->sequence($first, 'NQ,8'), 'reason' => 'lost at the lock']);
        $this->api('POST', "/rulings/{$lost}/undo")->assertCreated();
        $this->rule($first, 'filter', [
            'filter' => ['of' => 'cells', 'pair' => $this->pair($first, 'fee')],
            'reason' => 'fees are another ticket',
        ]);
        self::assertSame(
            [['never sent', 1, ['missing'], [], null], ['lost at the lock', 1, ['missing'], [], 1]],
            $this->history($first, 'NQ,8'),
        );

        $this->actingAs($this->analyst);
        $this->deliver('target', self::NEW."NQ,8,HESTER,9.99,t\n", 'new.csv');
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
        $second = $this->dataset->latestTally() ?? self::fail('There is no second tally.');
        $this->rule($second, 'cell', ['target' => $this->cell($second, 'NQ,8', 'fee'), 'reason' => 'the old fee']);

        self::assertSame(
            [['never sent', 1, ['missing'], [], null], ['lost at the lock', 1, ['missing'], [], 1], ['the old fee', 2, [], ['fee'], null]],
            $this->history($second, 'NQ,8'),
        );
        self::assertSame([['fees are another ticket', 1, [], ['fee'], null]], $this->history($second, 'LM,2'));
        self::assertSame([], $this->history($second, 'OT,9'));
    }

    /** @return list<array{mixed, mixed, mixed, mixed, mixed}> reason, tally, classes of rows, columns, tally in which it was undone */
    private function history(Tally $tally, string $key): array
    {
        $answer = $this->api('GET', "/tallies/{$tally->id}/records/{$this->sequence($tally, $key)}/rulings")->assertOk();

        return array_map(
            static fn(array $line): array => [
                data_get($line, 'ruling.reason'),
                $line['tally'],
                $line['rows'],
                $line['columns'],
                data_get($line, 'undone.tally'),
            ],
            $this->objects($answer, 'items'),
        );
    }

    /** @param array<string, mixed> $what */
    private function rule(Tally $tally, string $scope, array $what): int
    {
        $act = ['scope' => $scope, 'target' => '', 'decision' => 'defect', 'seenAct' => PHP_INT_MAX, ...$what];

        return $this->number($this->api('POST', "/tallies/{$tally->id}/rulings", $act)->assertCreated(), 'id');
    }

    private function sequence(Tally $tally, string $key): string
    {
        return (string) $this->number($this->api('GET', "/tallies/{$tally->id}/keys?find=".urlencode($key)), 'items.0.sequence');
    }

    private function pair(Tally $tally, string $column): string
    {
        return $tally->patterns->firstOrFail('source_column', $column)->pair_id;
    }

    private function cell(Tally $tally, string $key, string $column): string
    {
        $record = $this->api('GET', "/tallies/{$tally->id}/records/{$this->sequence($tally, $key)}")->assertOk();
        foreach ($this->objects($record, 'fields') as $field) {
            if ($field['source'] === $column) {
                return (string) json_encode(data_get($field, 'finding.sequence'));
            }
        }
        self::fail("No column {$column}.");
    }
}
