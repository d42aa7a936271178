<?php

declare(strict_types=1);

namespace NineTally\Tests\Matching;

use NineTally\Core\Comparison\CellClass;
use NineTally\Core\Comparison\CellFinding;
use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Comparison\RowRecord;
use NineTally\Core\Matching\OpenFile;
use NineTally\Core\Matching\RowSpill;
use NineTally\Core\Matching\Unmatched;
use NineTally\Core\Matching\UnmatchedSpool;
use NineTally\Core\Matching\WorkspaceFailure;
use NineTally\Core\Row\KeyTuple;
use NineTally\Core\Row\RefusalReason;
use NineTally\Core\Row\RefusedRecord;
use NineTally\Core\Row\Row;
use NineTally\Core\Row\Side;
use NineTally\Tests\TemporaryFiles;
use PHPUnit\Framework\TestCase;

/** What is written aside comes back as it was, in its order. */
final class SpillTest extends TestCase
{
    use TemporaryFiles;

    public function test_rows_come_back_whole_and_equal_keys_meet_in_one_partition_in_their_order(): void
    {
        $spill = new RowSpill($this->folder('spill'), 8);
        $cells = ['', 'ø', "line\nend", '"quoted"', str_repeat('x', 70_000)];
        for ($number = 1; $number <= 200; $number++) {
            $spill->add('key '.($number % 20), new Row($number, $number + 1, [...$cells, (string) $number]));
        }
        $spill->finish();

        $seen = [];
        for ($partition = 0; $partition < 8; $partition++) {
            $last = 0;
            foreach ($spill->rows($partition) as $row) {
                self::assertGreaterThan($last, $last = $row['number']);
                self::assertSame([...$cells, (string) $row['number']], explode(KeyTuple::SEPARATOR, $row['cells']));
                self::assertSame($row['number'] + 1, $row['line']);
                $seen[$row['key']][$partition] = ($seen[$row['key']][$partition] ?? 0) + 1;
            }
        }
        self::assertCount(20, $seen);
        foreach ($seen as $key => $partitions) {
            self::assertSame([10], array_values($partitions), "{$key} stands in one partition.");
        }
    }

    public function test_findings_of_many_streams_are_merged_by_their_numbers(): void
    {
        $spool = new UnmatchedSpool($this->folder('spool'));
        foreach ([1 => 'source-000', 5 => 'source-000', 9 => 'source-000', 2 => 'source-001', 8 => 'source-001', 3 => 'source-refused', 7 => 'target-000'] as $number => $stream) {
            $spool->add($stream, $this->missing($number));
        }
        self::assertSame([1, 2, 3, 5, 8, 9], $this->numbers($spool->merged('source-')));
        self::assertSame([7], $this->numbers($spool->merged('target-')));
        self::assertSame([], $this->numbers($spool->merged('nothing-')));
    }

    public function test_a_finding_comes_back_with_all_it_holds(): void
    {
        $spool = new UnmatchedSpool($this->folder('spool'));
        $changed = new Unmatched(4, RowClass::Changed, null, "KB\xFF1", 1, new RowRecord(4, 5, ['KB', '1', 'Ann']), new RowRecord(2, 3, ['KB', '1', 'ANN']), ['source' => 1, 'target' => 1], [new CellFinding(0, CellClass::Changed, 'case', [], 'Ann', 'ANN')]);
        $refused = new Unmatched(6, RowClass::Refused, Side::Source, '', 1, null, null, refused: RefusedRecord::because(6, 7, RefusalReason::UndecodableBytes, 'bytes that are not UTF-8 text', "KB,\xFF"));
        $spool->add('source-000', $changed);
        $spool->add('source-000', $refused);

        self::assertEquals([$changed, $refused], [...$spool->merged('source-')]);
    }

    public function test_a_file_that_ends_too_early_is_an_error_and_never_a_short_result(): void
    {
        $path = $this->file('abc', 'short');
        $file = OpenFile::forReading($path);
        self::assertSame('ab', $file->read(2));

        $this->expectException(WorkspaceFailure::class);
        $this->expectExceptionMessage('"short" ends too early or is gone. Run the tally again');
        $file->read(2);
    }

    public function test_a_place_that_cannot_be_written_is_named_with_the_remedy(): void
    {
        $this->expectException(WorkspaceFailure::class);
        $this->expectExceptionMessage('could not be written: the disk may be full');
        OpenFile::append($this->folder().'/no/such/folder', 'x');
    }

    /**
     * @param  iterable<Unmatched>  $findings
     * @return list<int>
     */
    private function numbers(iterable $findings): array
    {
        $numbers = [];
        foreach ($findings as $finding) {
            $numbers[] = $finding->number;
        }

        return $numbers;
    }

    private function missing(int $number): Unmatched
    {
        return new Unmatched($number, RowClass::Missing, Side::Source, "KB\xFF{$number}", 1, new RowRecord($number, $number + 1, ['KB', (string) $number]), null);
    }
}
