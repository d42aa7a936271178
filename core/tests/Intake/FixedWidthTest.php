<?php

declare(strict_types=1);

namespace NineTally\Tests\Intake;

use NineTally\Core\Intake\Delimited\LineEnds;
use NineTally\Core\Intake\FixedWidth\FixedWidthFormat;
use NineTally\Core\Intake\FixedWidth\FixedWidthReader;
use NineTally\Core\Intake\PartFormat;
use NineTally\Core\Intake\PartKind;
use NineTally\Core\Intake\ReaderCatalogue;
use NineTally\Core\Row\RefusedRecord;
use NineTally\Core\Row\Row;
use NineTally\Tests\TemporaryFiles;
use PHPUnit\Framework\TestCase;

final class FixedWidthTest extends TestCase
{
    use TemporaryFiles;

    private const REGISTER = "basin berth holder              fee\nKB    014   Ezekiel Thornøy 1412.60\nLM    2     Lee, Ann          ".
        "10.50\n\nNQ    7     Bríd  O'Marrow\n";

    public function test_edges_are_proposed_where_every_line_is_blank(): void
    {
        $path = $this->file(self::REGISTER, 'berths.txt');
        $found = (new ReaderCatalogue)->find($path, 'berths.txt');

        self::assertSame([0, 6, 12, 28], $found->format->fixedWidth?->starts);
        self::assertStringContainsString('4 columns', $found->reasons['starts']);
        $reader = (new ReaderCatalogue)->openAs($path, 'berths.txt', $found->format);
        self::assertSame(['basin', 'berth', 'holder', 'fee'], $reader->columns()->names);
        self::assertEquals([
            new Row(2, ['KB', '014', 'Ezekiel Thornøy', '1412.60']),
            new Row(3, ['LM', '2', 'Lee, Ann', '10.50']),
            // Two spaces inside of a value stay; those that fill it up do not.
            new Row(5, ['NQ', '7', "Bríd  O'Marrow", '']),
        ], iterator_to_array($reader->records(), false));
    }

    public function test_a_text_in_one_column_and_delimited_text_are_left_alone(): void
    {
        foreach (["holder\nAnn Lee\nBob Ray\n", "basin;  berth\nKB;    1\nLM;    2\n", "basin,berth\n"] as $text) {
            self::assertSame(PartKind::Delimited, (new ReaderCatalogue)->find($this->file($text, 'x.txt'), 'x.txt')->format->kind, $text);
        }
    }

    public function test_edges_are_moved_and_lines_left_out_at_both_ends(): void
    {
        $path = $this->file("printed by mjw\r\nKB014A\r\nLM002B\r\nTRL  2\r\n", 'x.txt');
        $format = PartFormat::fixedWidth(new FixedWidthFormat([], LineEnds::Crlf))->with([
            'starts' => [5, 2],
            'header' => false,
            'skipAbove' => 1,
            'skipBelow' => 1,
        ]);
        $reader = (new ReaderCatalogue)->openAs($path, 'x.txt', $format);

        self::assertEquals($format, PartFormat::fromArray($format->toArray()));
        self::assertSame(['column 1', 'column 2', 'column 3'], $reader->columns()->names);
        self::assertEquals([new Row(2, ['KB', '014', 'A']), new Row(3, ['LM', '002', 'B'])], iterator_to_array($reader->records(), false));
    }

    public function test_what_is_no_text_or_too_long_is_refused_with_its_line(): void
    {
        $path = $this->file("ab\nK\xF8\n".str_repeat('x', 300)."\nok\n", 'x.txt');
        $found = iterator_to_array((new FixedWidthReader($path, 'x.txt', new FixedWidthFormat([1]), 200))->records(), false);

        self::assertSame(
            ['undecodable-bytes 2', 'over-row-limit 3', 'row 4'],
            array_map(
                static fn(Row|RefusedRecord $record): string => ($record instanceof Row ? 'row' : $record->reason->value).
                    " {$record->line}",
                $found,
            ),
        );
    }

    public function test_what_was_found_can_be_read_as_the_other_kind(): void
    {
        $path = $this->file("berth  note\n1,2    a\n", 'x.txt');
        $catalogue = new ReaderCatalogue;

        self::assertSame([0, 7], $catalogue->findAs(PartKind::FixedWidth, $path, 'x.txt')->format->fixedWidth?->starts);
        self::assertSame(PartKind::Delimited, $catalogue->findAs(PartKind::Delimited, $path, 'x.txt')->format->kind);
    }
}
