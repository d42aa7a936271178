<?php

declare(strict_types=1);

namespace NineTally\Tests\Matching;

use NineTally\Core\Cause\CauseCatalogue;
use NineTally\Core\Intake\ReaderCatalogue;
use NineTally\Core\Matching\KeyForm;
use NineTally\Core\Matching\KeyOffsetIndex;
use NineTally\Core\Row\Row;
use NineTally\Core\Value\Reading;
use NineTally\Tests\TemporaryFiles;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class KeyOffsetIndexTest extends TestCase
{
    use TemporaryFiles;

    /**
     * Law: by its key each row is found as reading all of them gives it, with its line; what is not there is not found.
     *
     * @param  \Closure(string): string  $packed
     */
    #[DataProvider('files')]
    public function test_each_row_is_found_by_its_key(\Closure $packed): void
    {
        $text = "note,basin,berth,holder\n";
        for ($berth = 1; $berth <= 9_000; $berth++) {
            $text .=
                ($berth % 7 === 0 ? "\"Ladder loose\nasked twice\"" : 'dry').
                ','.
                ['KB', '"L,M"', 'nq'][$berth % 3].
                ",{$berth},".
                str_repeat('Thornøy ', $berth % 9).
                "\n".
                ($berth % 500 === 0 ? "too,few\n" : '');
        }
        $reader = (new ReaderCatalogue)->open($this->file($packed($text), 'berths'), 'berths.csv');
        $form = new KeyForm([new Reading, new Reading], [['case'], []], (new CauseCatalogue)->forms);
        $path = $this->folder().'/places';
        self::assertNull(KeyOffsetIndex::at($path, $reader, [1, 2], $form));
        $told = [];
        KeyOffsetIndex::write($reader, [1, 2], $form, $path, $this->folder(), static function (int $byte) use (&$told): void {
            $told[] = $byte;
        });
        $places = KeyOffsetIndex::at($path, $reader, [1, 2], $form);
        self::assertNotNull($places);

        foreach ($reader->records() as $nth => $row) {
            if ($row instanceof Row && $nth % 997 === 0) {
                self::assertEquals($row, $places->row([strtoupper($row->cells[1]), $row->cells[2]]));
            }
        }
        self::assertNull($places->row(['KB', '9001']));
        self::assertNull($places->row(['', '']));
        self::assertSame($reader->bytes(), $told[count($told) - 1]);
    }

    /** @return iterable<string, array{\Closure(string): string}> */
    public static function files(): iterable
    {
        yield 'plain, in many stretches' => [static fn(string $text): string => $text];
        yield 'packed, in one' => [static fn(string $text): string => (string) gzencode($text)];
        yield 'with a quote that means nothing' => [static fn(string $text): string => str_replace('KB,3,', 'K"B,3,', $text)];
    }
}
