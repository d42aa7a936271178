<?php

declare(strict_types=1);

namespace Tests\Feature\Review;

use App\Models\Tally;
use NineTally\Core\Report\CsvLine;
use Tests\TestCase;

/** Defects are a list of their own, with their state by the data; corrections are made of them, and the next tally says what was done. */
final class DefectsTest extends TestCase
{
    private const NEW_HEADER = "basin,berth,owner,fee,paid\n";

    public function test_a_defect_is_open_is_gone_and_came_back(): void
    {
        $tally = $this->defective();
        $this->api('PUT', "/rulings/{$this->act($tally)}/defect", ['mends' => 'Harbour IT', 'due' => '2027-01-31'])->assertNoContent();
        $list = "/datasets/{$this->dataset->id}/defects";
        $of = fn(string ...$what): array => array_map(
            fn(string $one): mixed => $this->objects($this->api('GET', $list), 'items')[2][$one],
            array_values($what),
        );
        self::assertSame(
            ['cells that differ', 4, 4, 'open', null, 'Harbour IT', '2027-01-31', 'MIG-7'],
            $of('about', 'findings', 'open', 'state', 'since', 'mends', 'due', 'ticket'),
        );
        $this->again(self::NEW_HEADER."KB,1,Ann,\"1.412,50\",05/03/2027\nKB,2,Bea,2,06/03/2027\nKB,3,Cay,3,07/03/2027\n");
        self::assertSame([0, 'gone', 2], $of('open', 'state', 'since'));
        $this->again($this->wrong());
        self::assertSame([4, 'came-back', 3], $of('open', 'state', 'since'));
        $this->actingAs($this->person('Somebody Else'))->api('GET', $list)->assertNotFound();
    }

    public function test_corrections_are_told_in_the_names_and_forms_of_the_target_and_checked_by_the_next_tally(): void
    {
        $tally = $this->defective();
        $sets = "/datasets/{$this->dataset->id}/corrections";
        $set = $this->api('POST', $sets, ['acts' => range($this->act($tally), $this->act($tally) + 2)])
            ->assertCreated()
            ->assertJson(['number' => 1, 'tally' => 1, 'checkedBy' => null, 'lines' => 6, 'waits' => 6, 'broke' => null]);
        $id = $this->number($set, 'id');
        $csv = $this->get("/api/v1{$sets}/{$id}/taken")
            ->assertOk()
            ->streamedContent();
        self::assertStringStartsWith(
            'correction,action,key.basin,key.berth,column,stands,must,row.owner,row.fee,row.paid,uncertain,state,ticket,identity'."\n",
            $csv,
        );
        foreach (
            [
                // In the marks and the date form that the target declares.
                '1,set,KB,1,fee,"1.400,00","1.412,5",,,,,waits,MIG-7,',
                '2,set,KB,2,fee,9,2,,,,,waits,MIG-7,',
                '3,set,KB,2,paid,07/03/2027,06/03/2027,,,,,waits,MIG-7,',
                '4,set,KB,3,owner,Cas,Cay,,,,,waits,MIG-7,',
                '5,add,KB,4,,,,Dee,4,08/03/2027,,waits,,',
                '6,take-out,XX,9,,,,,,,,waits,,',
            ]
            as $line
        ) {
            self::assertStringContainsString($line, $csv);
        }
        // KB,1 is done, the fee of KB,2 not, its day otherwise; KB,3 is right and its fee broken; KB,4 came with another owner; XX,9 stays.
        $this->again(
            self::NEW_HEADER.
                "KB,1,Ann,\"1.412,50\",05/03/2027\nKB,2,Bea,9,01/01/2028\nKB,3,Cay,33,07/03/2027\n".
                "KB,4,Dot,4,08/03/2027\nXX,9,x,1,05/03/2027\n",
        );
        $this->api('GET', $sets)->assertJson(['items' => [
            ['checkedBy' => 2, 'done' => 2, 'notDone' => 2, 'otherwise' => 2, 'waits' => 0, 'broke' => 2],
        ]]);
        self::assertSame(
            ['done', 'not-done', 'otherwise', 'done', 'otherwise', 'not-done'],
            array_column($this->objects($this->api('GET', "{$sets}/{$id}/lines"), 'items'), 'state'),
        );
        self::assertSame(
            [
                'KB,1,fee,1412.50,"1.400,00",gone',
                'KB,2,fee,2,9,there',
                'KB,2,paid,2027-03-06,07/03/2027,there',
                'KB,3,owner,Cay,Cas,gone',
                'KB,4,,,,gone',
                'XX,9,,,,there',
            ],
            $this->takenDefects(),
        );
        $this->api('POST', $sets, ['ticket' => 'MIG-7'])->assertCreated()->assertJson(['number' => 2, 'lines' => 1]);
        $this->api('POST', $sets, ['mends' => 'nobody'])->assertConflict();
        $this->api('POST', $sets, ['acts' => [999]])->assertConflict()->assertJson(['code' => 'nothing-to-correct']);
        $this->actingAs($this->owner)->get("/api/v1{$sets}/{$id}/taken")->assertOk();
    }

    /** @return list<string> key, column, values and state of each finding */
    private function takenDefects(): array
    {
        $taken = $this->get("/api/v1/datasets/{$this->dataset->id}/defects/taken?as=json-lines")->assertOk()->streamedContent();
        $lines = [];
        foreach (explode("\n", trim($taken)) as $line) {
            $of = (array) json_decode($line, true);
            $lines[] = CsvLine::of(
                array_map(static fn(string $name): string => is_string($of[$name]) ? $of[$name] : '', [
                    'key.basin',
                    'key.berth',
                    'column',
                    'source',
                    'target',
                    'state',
                ]),
            );
        }

        return array_map(trim(...), $lines);
    }

    private function wrong(): string
    {
        return self::NEW_HEADER."KB,1,Ann,\"1.400,00\",05/03/2027\nKB,2,Bea,9,07/03/2027\nKB,3,Cas,3,07/03/2027\nXX,9,x,1,05/03/2027\n";
    }

    private function act(Tally $tally): int
    {
        return $tally->rulings()->orderBy('id')->firstOrFail()->id;
    }

    /** Four cells are a defect by one act, one missing and one extra row by two more; the classes are ruled on as a whole. */
    private function defective(): Tally
    {
        $this->actingAs($this->analyst);
        $this->deliver(
            'source',
            "basin,berth,holder,fee,paid\nKB,1,Ann,1412.50,2027-03-05\nKB,2,Bea,2,2027-03-06\n".
                "KB,3,Cay,3,2027-03-07\nKB,4,Dee,4,2027-03-08\n",
            'old.csv',
        );
        $this->deliver('target', $this->wrong(), 'new.csv');
        $same = static fn(string $name): array => ['source' => $name, 'target' => $name];
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", [
            'key' => [$same('basin'), $same('berth')],
            'columnPairs' => [
                ['source' => 'holder', 'target' => 'owner'],
                [...$same('fee'), 'kind' => 'number', 'forgives' => ['number-form']],
                [...$same('paid'), 'kind' => 'date', 'forgives' => ['date-form']],
            ],
            'leftOut' => ['source' => [], 'target' => []],
            'sides' => ['target' => ['decimalMark' => ',', 'groupMark' => '.', 'dateForms' => ['dd/MM/yyyy']]],
        ])->assertOk();
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
        $tally = $this->dataset->latestTally() ?? self::fail('There is no tally.');
        $this->rule($tally, ['scope' => 'filter', 'filter' => ['of' => 'cells'], 'ticket' => 'MIG-7']);
        $this->rule($tally, ['scope' => 'class', 'target' => 'missing']);
        $this->rule($tally, ['scope' => 'class', 'target' => 'extra']);

        return $tally;
    }

    /** @param array<string, mixed> $what */
    private function rule(Tally $tally, array $what): void
    {
        $this->api('POST', "/tallies/{$tally->id}/rulings", [
            ...$what,
            'decision' => 'defect',
            'reason' => 'wrong',
            'seenAct' => PHP_INT_MAX,
        ])->assertCreated();
    }

    private function again(string $new): void
    {
        $this->deliver('target', $new, 'new.csv');
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
    }
}
