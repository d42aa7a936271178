<?php

declare(strict_types=1);

namespace Tests\Feature\Review;

use App\Models\Tally;
use Illuminate\Testing\TestResponse;
use Tests\TestCase;

/** To believe a finding: the delivered lines around it, its cells before any step, and what stands next to a key that is missing. */
final class DeliveredRecordTest extends TestCase
{
    public function test_the_lines_around_a_row_are_shown_as_their_bytes_were_read(): void
    {
        $this->actingAs($this->analyst);
        $old = mb_convert_encoding("Berths;;\nbasin;berth;holder\nkb;1;Jörg\nkb;2;\"Ann\nMaria\"\nlm;3;Zoë\n", 'Windows-1252', 'UTF-8');
        $receipt = $this->announce('source', 'old.csv.gz', strlen((string) gzencode($old)));
        $this->chunk($receipt, 0, (string) gzencode($old))->assertOk();
        $this->api('PUT', "/receipts/{$receipt}/format", [
            'skipAbove' => 1,
            'delimiter' => 'semicolon',
            'encoding' => 'Windows-1252',
        ])->assertOk();
        $this->takeParts('source', $receipt)->assertAccepted();
        $this->deliver(
            'target',
            "{\"basin\":\"KB\",\"berth\":\"1\",\"holder\":\"Jorg\"}\n{\"basin\":\"LM\",\"berth\":\"3\",\"holder\":\"Zoë\"}\n",
            'new.jsonl',
        );
        $tally = $this->matched([['id' => 't', 'kind' => 'tidy-text', 'columns' => ['basin'], 'actions' => [['action' => 'upper']]]]);

        $delivered = $this->of($tally, 'KB,1', 'delivered')->assertJson([
            'source' => [
                'file' => 'old.csv.gz',
                'line' => 3,
                'columns' => ['basin', 'berth', 'holder'],
                // Before its step: the record has KB.
                'cells' => ['kb', '1', 'Jörg'],
            ],
            'target' => ['line' => 1, 'lines' => [['line' => 1, 'text' => '{"basin":"KB","berth":"1","holder":"Jorg"}'], ['line' => 2]]],
        ]);
        self::assertSame(
            ['Berths;;', 'basin;berth;holder', 'kb;1;Jörg', 'kb;2;"Ann', 'Maria"', 'lm;3;Zoë'],
            array_column($this->objects($delivered, 'source.lines'), 'text'),
        );
    }

    public function test_of_a_row_that_one_side_has_the_rows_next_to_its_key_on_the_other_are_shown(): void
    {
        $this->actingAs($this->analyst);
        $row = static fn(int $berth): string => "KB,{$berth},Holder\n";
        $this->deliver('source', "basin,berth,holder\n".implode('', array_map($row, range(1, 12))), 'old.csv');
        $this->deliver('target', "basin,berth,holder\n".implode('', array_map($row, [12, 11, 8, 1, 2, 3, 7, 6, 4, 5])), 'new.csv');
        $tally = $this->matched([]);

        $beside = $this->of($tally, 'KB,9', 'keys-beside')->assertJson(['isWaiting' => false, 'columns' => ['basin', 'berth', 'holder']]);
        self::assertSame(
            [['KB,6', true, 9], ['KB,7', true, 8], ['KB,8', true, 4], ['KB,11', false, 3], ['KB,12', false, 2]],
            array_map(
                static fn(array $found): array => [$found['key'], $found['isBefore'], $found['line']],
                $this->objects($beside, 'rows'),
            ),
        );
        $this->of($tally, 'KB,9', 'delivered')->assertJson(['source' => ['line' => 10], 'target' => null]);
    }

    /** @param list<array<string, mixed>> $steps of the source */
    private function matched(array $steps): Tally
    {
        $same = static fn(string $name): array => ['source' => $name, 'target' => $name];
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", [
            'key' => [$same('basin'), $same('berth')],
            'columnPairs' => [$same('holder')],
            'leftOut' => ['source' => [], 'target' => []],
            'sides' => $steps === [] ? [] : ['source' => ['preparation' => $steps]],
        ])->assertOk();
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();

        return $this->dataset->latestTally() ?? self::fail('There is no tally: '.$this->dataset->latestRun()?->problem);
    }

    /** @return TestResponse<\Symfony\Component\HttpFoundation\Response> */
    private function of(Tally $tally, string $key, string $what): TestResponse
    {
        $items = $this->objects($this->api('GET', "/tallies/{$tally->id}/keys?find=".urlencode($key)), 'items');
        $sequence = array_column($items, 'sequence', 'key')[$key] ?? self::fail("{$key} is no finding.");
        self::assertIsInt($sequence);

        return $this->api('GET', "/tallies/{$tally->id}/records/{$sequence}/{$what}")->assertOk();
    }
}
