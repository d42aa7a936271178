<?php

declare(strict_types=1);

namespace NineTally\Tests\Matching;

use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Comparison\RowReason;
use NineTally\Core\Intake\Batch;
use NineTally\Core\Matching\RowEncoding;
use NineTally\Core\Matching\Spill\AtomicFile;
use NineTally\Core\Matching\Spill\FindingEntry;
use NineTally\Core\Matching\Spill\FindingSpool;
use NineTally\Core\Matching\Spill\SpillReader;
use NineTally\Core\Matching\Spill\SpillWriter;
use NineTally\Core\Matching\Spill\WorkspaceFailure;
use NineTally\Core\Row\Side;
use NineTally\Tests\TemporaryFiles;
use PHPUnit\Framework\TestCase;

/** What a run writes aside comes back as it was, in its order. */
final class WorkspaceFilesTest extends TestCase
{
    use TemporaryFiles;

    public function test_rows_come_back_by_partition_in_their_order_whatever_the_buffer(): void
    {
        foreach ([1, 100, 1_000_000] as $buffer) {
            $path = $this->folder()."/spill-{$buffer}";
            $writer = new SpillWriter($path, 3, $buffer);
            for ($row = 0; $row < 50; $row++) {
                $writer->keys[$row % 3] .= "key {$row}".Batch::ROW_END;
                $writer->bodies[$row % 3] .= "body\n{$row}".Batch::ROW_END;
                $writer->rests[$row % 3] .= Batch::ROW_END;
                $writer->lines[$row % 3][] = 1_000_000_000_000 + $row;
                $writer->grownBy(20);
            }
            $writer->finish();
            $rows = (new SpillReader([['path' => $path, 'baseLine' => 0], ['path' => $path, 'baseLine' => 500]]))->rows(1);

            self::assertCount(34, $rows->keys);
            self::assertSame(['key 1', "body\n4", 'key 1'], [$rows->keys[0], $rows->bodies[1], $rows->keys[17]]);
            self::assertSame(
                [1_000_000_000_001, 1_000_000_000_049, 1_000_000_000_501],
                [$rows->lines->at(0), $rows->lines->at(16), $rows->lines->at(17)],
            );
        }
    }

    public function test_a_partition_without_rows_is_empty_and_a_lost_file_is_told(): void
    {
        $path = $this->folder().'/spill';
        (new SpillWriter($path, 2, 100))->finish();
        self::assertSame([], (new SpillReader([['path' => $path, 'baseLine' => 0]]))->rows(0)->keys);

        unlink($path.'.index');
        $this->expectException(WorkspaceFailure::class);
        new SpillReader([['path' => $path, 'baseLine' => 0]]);
    }

    public function test_a_finding_comes_back_with_all_it_has(): void
    {
        $entries = [
            new FindingEntry(
                7,
                RowClass::Changed,
                null,
                "KB\xFF1",
                2,
                "KB\xFF1\xFFAnn",
                "KB\xFF1\xFF",
                9,
                3,
                4,
                cells: [[2, 'changed', 'truncated', ['characters' => 20, 'forms' => 'case'], "a\xFFb"]],
                isBridged: true,
            ),
            new FindingEntry(8, RowClass::Repeated, Side::Target, '', 1, null, '', keptLine: 5),
            new FindingEntry(9, RowClass::Missing, Side::Source, '0', 1, "\n", reason: RowReason::IdleBridge),
            new FindingEntry(
                10,
                RowClass::Refused,
                Side::Source,
                refused: [
                    'reason' => 'undecodable-bytes',
                    'facts' => ['encoding' => 's', 'lines' => 2],
                    'raw' => "\xFE\xFF\0",
                    'digest' => 'd',
                ],
            ),
        ];
        foreach ($entries as $entry) {
            self::assertEquals($entry, FindingEntry::fromBytes($entry->bytes()));
        }
    }

    public function test_streams_are_merged_by_line_and_an_empty_one_leaves_no_file(): void
    {
        $streams = [];
        foreach ([[1, 5, 9], [2, 3, 10], []] as $number => $lines) {
            $path = $this->folder()."/findings-{$number}";
            $spool = new FindingSpool($path);
            foreach ($lines as $line) {
                $spool->add(new FindingEntry($line, RowClass::Missing, Side::Source, "row {$line}"));
            }
            if ($spool->finish()) {
                $streams[] = ['path' => $path, 'baseLine' => $number * 100];
            }
        }

        $merged = [];
        foreach (FindingSpool::merged($streams) as $linesBefore => $entry) {
            $merged[] = $linesBefore + $entry->line;
        }
        self::assertSame([1, 5, 9, 102, 103, 110], $merged);
        self::assertFileDoesNotExist($this->folder().'/findings-2');
        self::assertSame([], glob($this->folder().'/*.unfinished'));
    }

    /** Blocks are cut anywhere: within the length of an entry, in entries longer than a block, between entries of one line. */
    public function test_many_long_streams_are_merged_as_if_all_were_sorted_at_once(): void
    {
        mt_srand(20_261_130);
        $streams = $expected = [];
        for ($number = 0; $number < 40; $number++) {
            $spool = new FindingSpool($this->folder()."/long-{$number}");
            $line = 0;
            for ($nth = 0; $nth < 200; $nth++) {
                $line += mt_rand(0, 40);
                $text = str_repeat(chr(97 + $number % 26), mt_rand(0, 30) === 0 ? mt_rand(60_000, 90_000) : mt_rand(0, 400));
                $spool->add(new FindingEntry($line, RowClass::Missing, Side::Source, "{$number} {$nth}", source: $text));
                $expected[] = [10 * $number + $line, "{$number} {$nth}", strlen($text)];
            }
            $spool->finish();
            $streams[] = ['path' => $this->folder()."/long-{$number}", 'baseLine' => 10 * $number];
        }
        // Sorting is stable: of one line, the earlier stream comes first.
        usort($expected, static fn(array $one, array $other): int => $one[0] <=> $other[0]);

        $merged = [];
        foreach (FindingSpool::merged($streams) as $linesBefore => $entry) {
            $merged[] = [$linesBefore + $entry->line, $entry->key, strlen((string) $entry->source)];
        }
        $lines = array_column($expected, 0);
        self::assertSame($lines, array_column($merged, 0));
        sort($expected);
        sort($merged);
        self::assertSame($expected, $merged);
    }

    public function test_a_stream_that_was_cut_short_is_told(): void
    {
        $path = $this->folder().'/cut';
        $spool = new FindingSpool($path);
        $spool->add(new FindingEntry(1, RowClass::Missing, Side::Source, 'row', source: 'cells'));
        $spool->finish();
        file_put_contents($path, substr((string) file_get_contents($path), 0, -1));

        $this->expectException(WorkspaceFailure::class);
        iterator_to_array(FindingSpool::merged([['path' => $path, 'baseLine' => 0]]), false);
    }

    public function test_two_workers_at_one_file_leave_one_whole_file(): void
    {
        $path = $this->folder().'/piece.result';
        $slow = new AtomicFile($path);
        $slow->write('the same ');
        AtomicFile::put($path, 'the same bytes');
        self::assertSame('the same bytes', file_get_contents($path));
        $slow->write('bytes');
        $slow->finish();

        self::assertSame('the same bytes', file_get_contents($path));
        self::assertCount(1, (array) glob($this->folder().'/piece*'));
        $this->expectException(WorkspaceFailure::class);
        AtomicFile::put($this->folder().'/nowhere/piece', '');
    }

    public function test_cells_are_put_in_the_order_of_the_plan_and_back(): void
    {
        $layout = new RowEncoding([3], [2, 0], 5, false);
        $arranged = $layout->arranged("a\xFFb\xFFc\xFFk\xFFe\xFE1\xFF2\xFF3\xFF4\xFF5");
        [$rest, $body] = explode(RowEncoding::BODY, explode(Batch::ROW_END, $arranged)[1]);

        self::assertSame(["4\xFF2\xFF5", "3\xFF1"], [$rest, $body]);
        self::assertSame("1\xFF2\xFF3\xFF4\xFF5", $layout->row($body, $rest));
        $wide = new RowEncoding([0], range(149, 1), 150, false);
        $row = implode(Batch::CELL_END, range(1, 150));
        [$rest, $body] = explode(RowEncoding::BODY, $wide->arranged($row));
        self::assertSame($row, $wide->row($body, $rest));
    }
}
