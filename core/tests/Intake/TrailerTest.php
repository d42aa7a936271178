<?php

declare(strict_types=1);

namespace NineTally\Tests\Intake;

use NineTally\Core\Intake\Delimited\DelimitedFormat;
use NineTally\Core\Intake\Delimited\LineEnds;
use NineTally\Core\Intake\FixedWidth\FixedWidthFormat;
use NineTally\Core\Intake\HashTotals;
use NineTally\Core\Intake\PartFormat;
use NineTally\Core\Intake\Trailer;
use NineTally\Tests\TemporaryFiles;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class TrailerTest extends TestCase
{
    use TemporaryFiles;

    /** @param list<string> $cells */
    #[DataProvider('endings')]
    public function test_the_last_record_is_looked_at(string $text, array $cells, bool $isLikely, ?int $rows): void
    {
        $trailer = Trailer::of($this->file($text, 'x.csv'), PartFormat::delimited(new DelimitedFormat(',', LineEnds::Lf)), 3);

        self::assertNotNull($trailer);
        self::assertSame([$cells, $isLikely, $rows], [$trailer->cells, $trailer->isLikely, $trailer->rows]);
        self::assertEquals(
            $trailer,
            Trailer::of(
                $this->file((string) gzencode(str_repeat(' ', 4_000_000)."\n".$text), 'x.csv.gz'),
                PartFormat::delimited(new DelimitedFormat(',', LineEnds::Lf)),
                3,
            ),
        );
    }

    /** @return iterable<string, array{string, list<string>, bool, int|null}> */
    public static function endings(): iterable
    {
        yield 'a trailer with count and total' => ["basin,berth,fee\nKB,1,2.50\nTRL,1,2.50,x\n\n", ['TRL', '1', '2.50', 'x'], true, 2];
        yield 'a number for its kind' => ["basin,berth,fee\nKB,1,2.50\n99,1\n", ['99', '1'], true, 2];
        yield 'a count alone' => ["basin,berth,fee\nKB,1,2.50\n# 1\n", ['# 1'], true, null];
        yield 'a row like the others' => ["basin,berth,fee\nKB,1,2.50\nTRL,2,free\n", ['TRL', '2', 'free'], false, 2];
        yield 'as many cells as a row, but figures alone' => ["basin,berth,fee\nKB,1,2.50\nTRL,1,2.50\n", ['TRL', '1', '2.50'], true, 2];
    }

    public function test_text_of_fixed_width_is_divided_at_its_spaces(): void
    {
        $trailer = Trailer::of($this->file("KB 1\nTRAILER   1   2.50\n", 'x.txt'), PartFormat::fixedWidth(new FixedWidthFormat([3])), 2);

        self::assertSame(['TRAILER', '1', '2.50'], $trailer?->cells);
        self::assertTrue($trailer->isLikely);
    }

    public function test_there_is_none_where_nothing_stands_above_it(): void
    {
        self::assertNull(Trailer::of($this->file('TRL,1', 'x.csv'), PartFormat::delimited(new DelimitedFormat(',', LineEnds::Lf)), 3));
        self::assertNull(Trailer::of($this->file("[1]\n[2]", 'x.json'), PartFormat::json(false), 3));
    }

    public function test_totals_are_exact_and_name_what_they_cannot_add(): void
    {
        $totals = new HashTotals(['fee', 'licence']);
        foreach ([['0.1', '00012'], ['0.2', ''], ['n/a', '123456789012345678901234567890'], [' 1000.05 ', '1']] as $cells) {
            $totals->add($cells, ['fee' => 0, 'licence' => 1]);
        }
        $totals->add(['7'], ['licence' => 0]);

        self::assertSame(['1000.35', 1], [(string) $totals->sum('fee'), $totals->unreadable('fee')]);
        self::assertSame(['123456789012345678901234567910', 0], [(string) $totals->sum('licence'), $totals->unreadable('licence')]);
    }
}
