<?php

declare(strict_types=1);

namespace Tests\Feature\Sign;

use App\Models\Report;
use App\Models\Tally;
use App\Models\Workbook;
use NineTally\Core\Plan\CanonicalJson;
use Tests\TestCase;

/** What was accepted is shown and taken away as it was, whatever happens afterwards. */
final class SignedReportTest extends TestCase
{
    use Signs;

    public function test_page_json_and_csv_of_a_sign_off_are_the_same_bytes_whenever_made(): void
    {
        $tally = $this->accepted();
        $taken = fn(): array => array_map(
            fn(string $path): string => (string) $this->get("/api/v1/tallies/{$tally->id}{$path}")->assertOk()->getContent(),
            ['/report', '/sign-off/taken?as=json', '/sign-off/taken?as=csv'],
        );
        $before = $taken();
        $this->api('POST', "/tallies/{$tally->id}/report-orders")->assertAccepted();
        // Another day, other terms, another key, a person of another name, a newer tally.
        $this->travel(400)->days();
        $this->actingAs($this->manager);
        $this->terms([['figure' => 'rows-missing', 'worst' => '7']], ['maySignTwice' => true]);
        $this->owner->forceFill(['is_administrator' => true])->save();
        $this->actingAs($this->owner);
        $this->api('POST', '/seal-key/rotations', [
            'reason' => 'once a year', 'isCompromised' => false, 'password' => 'kept by the lock house',
        ])->assertCreated();
        $this->tallied(new: self::TARGET."KB,9,9\n");
        self::assertSame($before, $taken());
        $this->api('POST', "/tallies/{$tally->id}/report-orders")->assertAccepted();
        self::assertSame(1, Report::query()->count(), 'Printed once and kept.');

        /** @var array{document: array<string, mixed>, acts: list<array<string, mixed>>} $said */
        $said = json_decode($before[1], true);
        self::assertSame(CanonicalJson::of($said), $before[1]);
        self::assertSame(['prepared', 'checked', 'accepted'], array_column($said['acts'], 'act'));
        self::assertSame($said['acts'][2]['digest'], hash('sha256', CanonicalJson::of($said['document'])));
        self::assertStringContainsString("figure,figures rows source missing,1,,,\n", $before[2]);
        self::assertStringContainsString('act,accepted,Tove Lindqvist,data-owner,', $before[2]);

        // Taken back it is shown as it is now.
        $this->actingAs($this->owner);
        $this->api('POST', "/tallies/{$tally->id}/sign-off/ends", ['act' => 'withdrawn', 'reason' => 'in error'])->assertOk();
        self::assertStringContainsString('in error', (string) $this->get("/api/v1/tallies/{$tally->id}/report")->getContent());
    }

    public function test_what_nobody_signed_has_no_sign_off_to_take(): void
    {
        $tally = $this->tallied();
        $this->api('GET', "/tallies/{$tally->id}/sign-off/taken?as=json")->assertConflict();
    }

    public function test_the_report_is_taken_as_a_workbook_with_a_sheet_for_each_table(): void
    {
        $tally = $this->accepted();
        $this->api('POST', "/tallies/{$tally->id}/report-workbook")
            ->assertAccepted()
            ->assertJsonPath('name', 'moorings-tally-1-report.xlsx');
        $workbook = Workbook::query()->firstOrFail();
        self::assertSame('written', $workbook->state, (string) $workbook->problem);
        $zip = new \ZipArchive;
        $zip->open(storage_path("workbooks/{$workbook->id}.xlsx"));
        preg_match_all('/<sheet name="([^"]+)"/', (string) $zip->getFromName('xl/workbook.xml'), $sheets);
        self::assertSame([
            'Report', 'Limits', 'Signatures', 'Rows', 'Columns', 'Differences', 'Rulings', 'Corrections', 'Totals', 'Groups of totals',
            'Steps', 'Plan', 'Deliveries',
        ], $sheets[1]);
        $cells = array_map(
            static fn(int $sheet): string => strip_tags(
                str_replace('</c>', ' ', (string) $zip->getFromName("xl/worksheets/sheet{$sheet}.xml")),
            ),
            [1, 2, 3, 4, 6],
        );
        foreach (['Moorings is accepted', 'waived by', 'Tove Lindqvist', 'missing', 'no cause found'] as $place => $words) {
            self::assertStringContainsString($words, $cells[$place]);
        }
    }

    public function test_parts_repeats_and_bridges_stand_in_the_report_and_the_plan_in_words(): void
    {
        $this->actingAs($this->analyst);
        $this->takeParts(
            'source',
            $this->received('north.csv', "basin,berth,fee\nKB,1,10\nKB,2,20\nKB,2,20\n"),
            $this->received('south.csv', "basin,berth,fee\nLM,1,5\nLM,2,6\n"),
        )->assertAccepted();
        $this->deliver('target', "basin,berth,fee\nKB,1,11\nKB,2,20\nLX,1,6\n");
        $same = static fn(string $name): array => ['source' => $name, 'target' => $name];
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", [
            'key' => [$same('basin'), $same('berth')],
            'columnPairs' => [['kind' => 'number', 'crosswalk' => [['source' => '7', 'target' => '8']], ...$same('fee')]],
            'leftOut' => ['source' => [], 'target' => []],
            'bridges' => [['source' => ['LM', '1'], 'target' => ['LX', '1']]],
            'sides' => ['source' => ['repeats' => ['policy' => 'keep-first'], 'blankTokens' => ['NULL']]],
        ])->assertOk()->assertJson(['problems' => []]);
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
        $this->get("/api/v1/tallies/{$this->newest()->id}/report")->assertOk()->assertSeeTextInOrder([
            '1 rows agree, 2 changed', 'By part', 'north.csv', 'south.csv', 'Rows that share a key',
            'Source: of rows that share a key the first is compared, the others are listed.',
            'Target: all rows that share a key are listed, and none is compared.',
            'Bridges', 'The plan has 1 bridge', 'Of the rows that they join 1 is changed.',
            'The plan in words', 'basin (key)', 'fee', 'a number; by a crosswalk of 1 line', 'blank is also "NULL"',
        ]);
    }

    private function accepted(): Tally
    {
        $tally = $this->tallied();
        $this->rule($tally, 'missing')->assertCreated();
        $this->rule($tally, 'changed')->assertCreated();
        foreach ([$this->analyst, $this->manager, $this->owner] as $person) {
            $this->sign($tally, $person)->assertCreated();
        }

        return $tally;
    }
}
