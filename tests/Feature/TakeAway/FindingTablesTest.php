<?php

declare(strict_types=1);

namespace Tests\Feature\TakeAway;

use App\Models\Tally;
use Tests\TestCase;

/** Findings are taken away as two tables, rows and cells, in which each fact has a column of its own. */
final class FindingTablesTest extends TestCase
{
    public function test_a_cell_is_a_line_with_its_key_values_states_cause_and_ruling(): void
    {
        $tally = $this->ruled();
        $lines = $this->objectsOf("/tallies/{$tally->id}/findings/taken?of=cells&as=json-lines&beside[]=holder");

        self::assertSame(
            [
                'cell' => 1,
                'row' => 1,
                'key.basin' => 'KB',
                'key.berth' => '014',
                'column' => 'fee',
                'target.column' => 'fee',
                'class' => 'changed',
                'cause' => 'none',
                'cause.sentence' => 'no cause found',
                'pattern' => 1,
                'source' => '1412.60',
                'source.state' => '',
                'target' => '1400',
                'target.state' => '',
                'difference' => -12.6,
                'difference.relative' => -0.00892,
                'source.line' => 2,
                'target.line' => 3,
                'beside.holder' => '=1+1',
            ],
            array_slice($lines[0], 0, 19),
        );
        self::assertSame(
            ['defect', 'cut at the quay', 'MIG-7', 'Ruth Osei', 'Tove Lindqvist', 1],
            [
                ...array_map(static fn(string $of): mixed => $lines[0]["ruling.{$of}"], [
                    'decision',
                    'reason',
                    'ticket',
                    'by',
                    'asked',
                    'tally',
                ]),
            ],
        );
        self::assertSame([1, 1, 1, 1], array_values(array_slice($lines[0], -4)));
        // A token that means blank is no value: the other side has all of it.
        self::assertSame(['filled', 'N/A', 'token', '7.00', '', 7], array_values(array_intersect_key(
            $lines[1],
            array_flip(['class', 'source', 'source.state', 'target', 'target.state', 'difference']),
        )));
        $csv = $this->get("/api/v1/tallies/{$tally->id}/findings/taken?of=cells&for=spreadsheets&beside[]=holder")->streamedContent();
        self::assertStringContainsString(",1412.60,,1400,,-12.6,-0.00892,2,3,'=1+1,defect,cut at the quay,MIG-7,", $csv);
    }

    public function test_a_row_is_a_line_with_the_columns_of_both_sides(): void
    {
        $tally = $this->ruled();
        $lines = array_column($this->objectsOf("/tallies/{$tally->id}/findings/taken?of=rows&as=json-lines"), null, 'class');

        self::assertSame(['changed', 'missing', 'repeated', 'refused', 'extra'], array_values(array_unique(array_keys($lines))));
        self::assertSame(
            ['NQ', 'source', 'NQ', '', 'x', '', 'N/A', 'token', '', 'no row', null],
            array_map(static fn(string $of): mixed => $lines['missing'][$of], [
                'key.basin', 'side', 'source.basin', 'source.basin.state', 'source.holder', 'source.holder.state', 'source.fee',
                'source.fee.state', 'target.owner', 'target.owner.state', 'target.line',
            ]),
        );
        self::assertSame(
            ['', 'bad,row', 9],
            [$lines['refused']['key.basin'], $lines['refused']['refused'], $lines['refused']['source.line']],
        );
        self::assertSame([2, 0], [$lines['repeated']['source.rows'], $lines['repeated']['target.rows']]);
    }

    public function test_a_schema_and_a_page_of_the_docs_say_what_the_columns_hold(): void
    {
        $tally = $this->ruled();
        $page = (string) file_get_contents(base_path('docs/reference/take-away.md'));
        foreach (['rows', 'cells'] as $of) {
            $schema = $this->api('GET', "/tallies/{$tally->id}/findings/table-schema?of={$of}")->assertOk();
            $fields = array_column($this->objects($schema, 'fields'), 'type', 'name');
            $header = explode(
                ',',
                strtok($this->get("/api/v1/tallies/{$tally->id}/findings/taken?of={$of}")->streamedContent(), "\n") ?: '',
            );
            self::assertSame($header, array_map(strval(...), array_keys($fields)));
            self::assertSame('integer', $fields['source.line']);
            foreach (array_keys($fields) as $name) {
                $said = preg_replace(
                    '/^(key|(?:source|target)(?=\.(?:basin|berth|holder|owner|fee|loaded)))\.\w+/',
                    '$1.…',
                    (string) $name,
                );
                self::assertStringContainsString("`{$said}`", $page, "{$of}: {$name}");
            }
        }
    }

    public function test_a_workbook_has_numbers_where_something_is_counted_and_text_where_it_was_delivered(): void
    {
        $tally = $this->ruled();
        $this->api('POST', "/tallies/{$tally->id}/findings/workbook?of=cells")->assertAccepted();
        $id = $this->api('GET', '/workbooks')->json('items.0.id');
        self::assertIsString($id);
        $file = storage_path("workbooks/{$id}.xlsx");
        $sheet = (string) file_get_contents("zip://{$file}#xl/worksheets/sheet1.xml");

        self::assertMatchesRegularExpression('#<c r="A2"[^>]*><v>1</v>#', $sheet);
        self::assertMatchesRegularExpression('#t="(inlineStr|s)"[^>]*>(<is><t>1412\.60</t></is>|<v>)#', $sheet);
        self::assertStringContainsString('<v>-12.6</v>', $sheet);
    }

    private function ruled(): Tally
    {
        $this->actingAs($this->analyst);
        $this->deliver(
            'source',
            "basin,berth,holder,fee\nKB,014,=1+1,1412.60\nLM,1,Ann,N/A\nNQ,8,x,N/A\nPW,1,a,1\nPW,1,a,1\nKB,2,y,\nKB,3,z,5\nbad,row\n",
            'old.csv',
        );
        $this->deliver(
            'target',
            "basin,berth,owner,fee,loaded\nLM,1,Ann,7.00,t\nKB,014,=1+1,1400,t\nKB,2,y,,t\nKB,3,z,5,t\nOT,9,Wanda,1,t\n",
            'new.csv',
        );
        $same = static fn(string $name): array => ['source' => $name, 'target' => $name];
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", [
            'key' => [$same('basin'), $same('berth')],
            'columnPairs' => [
                ['source' => 'holder', 'target' => 'owner'],
                [...$same('fee'), 'kind' => 'number', 'forgives' => ['number-form']],
            ],
            'leftOut' => ['source' => [], 'target' => ['loaded']],
            'sides' => ['source' => ['blankTokens' => ['N/A']]],
        ])->assertOk();
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
        $tally = $this->dataset->latestTally() ?? self::fail('There is no tally.');
        $this->api('POST', "/tallies/{$tally->id}/rulings", [
            'scope' => 'cell', 'target' => '1', 'decision' => 'defect', 'reason' => 'cut at the quay', 'ticket' => 'MIG-7',
            'askedId' => $this->owner->id, 'seenAct' => 0,
        ])->assertCreated();

        return $tally;
    }

    /** @return list<array<string, mixed>> */
    private function objectsOf(string $path): array
    {
        $objects = [];
        foreach (explode("\n", trim($this->get("/api/v1{$path}")->assertOk()->streamedContent())) as $line) {
            /** @var array<string, mixed> $object */
            $object = json_decode($line, true, 8, JSON_THROW_ON_ERROR);
            $objects[] = $object;
        }

        return $objects;
    }
}
