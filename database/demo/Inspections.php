<?php

declare(strict_types=1);

namespace Database\Demo;

/**
 * What inspectors found on the vessels. One night the old register loaded a block of its rows once more; some inspections were written down
 * again when they were corrected, some under an index number in small letters, and three stand twice that the move lost altogether.
 */
final readonly class Inspections
{
    public const NAME = 'Inspections';

    private const ALL = 480;

    /** The block that was loaded twice. */
    private const BLOCK = [201, 320];

    /** Written again with another result and fee, which the new register has. */
    private const CORRECTED = [17, 41, 75, 103, 128, 166, 188, 345, 372, 399, 415, 437];

    /** Written again under an index number in small letters. */
    private const IN_SMALL_LETTERS = [12, 88, 152, 360, 401, 466];

    /** Written again, and in the new register not at all. */
    private const LOST = [60, 140, 450];

    /** What the new register has twice, to the letter. */
    private const COPIED = [25, 55, 400];

    /** The new register has another fee. */
    private const CHANGED = [5, 190];

    private const FIRST_LOAD = '2026-10-04 02:00';

    private const SECOND_LOAD = '2026-10-05 02:00';

    private const CORRECTION = '2026-10-11 02:00';

    /** Rows after which an inspection is written again. */
    private const LATER = 9;

    private const SOURCE_COLUMNS = ['index_no', 'inspected_on', 'inspector', 'result', 'fee', 'loaded_at'];

    private const TARGET_COLUMNS = ['index_no', 'date', 'inspector', 'result', 'fee'];

    public static function drawn(): DrawnFrom
    {
        return new DrawnFrom('inspection_book', 'inspections', self::SOURCE_COLUMNS, 250, static fn(): array => [
            'source' => new DemoRows(self::SOURCE_COLUMNS, self::sourceRows()),
            'target' => self::target(),
        ]);
    }

    public static function target(): DemoRows
    {
        return new DemoRows(self::TARGET_COLUMNS, self::targetRows());
    }

    /** @return list<list<string>> */
    private static function sourceRows(): array
    {
        $source = $again = [];
        for ($number = 1; $number <= self::ALL; $number++) {
            $source[] = [...self::row($number), self::FIRST_LOAD];
            if (in_array($number - self::LATER, [...self::CORRECTED, ...self::IN_SMALL_LETTERS, ...self::LOST], true)) {
                $source[] = self::again($number - self::LATER);
            }
            if ($number >= self::BLOCK[0] && $number <= self::BLOCK[1]) {
                $again[] = [...self::row($number), self::SECOND_LOAD];
            }
        }

        return [...$source, ...$again];
    }

    /** @return list<list<string>> */
    private static function targetRows(): array
    {
        $target = [];
        for ($number = 1; $number <= self::ALL; $number++) {
            $row = in_array($number, self::CORRECTED, true) ? array_slice(self::again($number), 0, -1) : self::row($number);
            $row = in_array($number, self::CHANGED, true) ? [...array_slice($row, 0, 4), '99.00'] : $row;
            if (! in_array($number, self::LOST, true)) {
                $target[] = $row;
            }
            if (in_array($number, self::COPIED, true)) {
                $target[] = $row;
            }
        }

        return $target;
    }

    /** @return array<string, mixed> the plan that compares both sides, as plans are written */
    public static function plan(): array
    {
        return HandMade::plan(
            '1259ec',
            [
                ['source' => 'index_no', 'target' => 'index_no', 'forgives' => ['case']],
                ['source' => 'inspected_on', 'target' => 'date'],
            ],
            [['inspector', 'inspector'], ['result', 'result'], ['fee', 'fee']],
            ['loaded_at'],
        );
    }

    /**
     * @return array{rows: array{source: int, target: int}, block: int, corrected: int, byForm: int, lost: int, copied: int, changed: int}
     *     rows of both sides; and inspections that stand twice, by why
     */
    public static function truth(): array
    {
        $block = self::BLOCK[1] - self::BLOCK[0] + 1;
        $scattered = count(self::CORRECTED) + count(self::IN_SMALL_LETTERS) + count(self::LOST);

        return [
            'rows' => [
                'source' => self::ALL + $block + $scattered,
                'target' => self::ALL - count(self::LOST) + count(self::COPIED),
            ],
            'block' => $block,
            'corrected' => count(self::CORRECTED),
            'byForm' => count(self::IN_SMALL_LETTERS),
            'lost' => count(self::LOST),
            'copied' => count(self::COPIED),
            'changed' => count(self::CHANGED),
        ];
    }

    /** @return list<string> */
    private static function row(int $number): array
    {
        return [
            sprintf('WM-%04d', $number * 37 % 9_000 + 100),
            sprintf('2025-%02d-%02d', $number * 5 % 12 + 1, $number * 11 % 28 + 1),
            Wherrymoor::holder($number % 9 * 13),
            ['passed', 'passed', 'passed', 'with conditions', 'failed'][$number * 7 % 5],
            sprintf('%d.50', 30 + $number * 13 % 40),
        ];
    }

    /** @return list<string> as it was written again */
    private static function again(int $number): array
    {
        $row = self::row($number);
        if (in_array($number, self::CORRECTED, true)) {
            $row[3] = $row[3] === 'passed' ? 'with conditions' : 'passed';
            $row[4] = sprintf('%d.50', 35 + $number * 13 % 40);
        }
        $row[0] = in_array($number, self::IN_SMALL_LETTERS, true) ? strtolower($row[0]) : $row[0];

        return [...$row, self::CORRECTION];
    }
}
