<?php

declare(strict_types=1);

namespace NineTally\Core\Profile\Repeats;

use NineTally\Core\Intake\Batch;
use NineTally\Core\Repeats\ChosenRow;
use NineTally\Core\Totals\ExactSum;

/** The rows of one side that share the values of the columns that are looked at. */
final readonly class LookedGroup
{
    /** Rows of a large group that are shown. */
    private const SHOWN = 12;

    private const PLACE_BYTES = 8;

    /**
     * @param  list<int>  $places  packed, of all rows, in the order in which they stand
     * @param  list<list<string>>  $shown  cells of the first of them
     * @param  list<string>  $differing  names of columns in which not all of them have the same value
     * @param  bool  $isConflict  whether they differ in a column in which copies may not
     * @param  bool  $isByForm  whether the values that they share are written in several ways
     * @param  ExactSum|null  $surplus  what the rows beyond the first add to a total; null where none is asked about
     * @param  string|null  $digest  of all rows, as {@see ChosenRow} has it
     * @param  list<string>  $digests  of those that are shown
     */
    private function __construct(
        public array $places,
        public array $shown,
        public array $differing,
        public bool $isConflict,
        public bool $isByForm,
        public ?ExactSum $surplus,
        public ?string $digest,
        public array $digests,
    ) {}

    public static function packed(int $place, string $cells): string
    {
        return pack('J', $place).$cells;
    }

    /** @param list<string> $packed rows as {@see packed()} writes them */
    public static function of(LookedSide $side, array $packed): self
    {
        sort($packed, SORT_STRING);
        $cellsOf = static fn(string $row): array => explode(Batch::CELL_END, substr($row, self::PLACE_BYTES));
        $first = $packed === [] ? [] : $cellsOf($packed[0]);
        $differs = [];
        foreach (array_slice($packed, 1) as $row) {
            if (substr_compare($row, $packed[0], self::PLACE_BYTES) !== 0) {
                foreach ($cellsOf($row) as $place => $cell) {
                    $differs[$place] = ($differs[$place] ?? false) || $cell !== $first[$place];
                }
            }
        }
        $surplus = null;
        if ($side->stake !== null) {
            // Row by row: a group may be as large as its side.
            $surplus = new ExactSum;
            foreach (array_slice($packed, 1) as $row) {
                $side->stake->add($surplus, $cellsOf($row));
            }
        }
        $digests = $side->hasDigests
            ? array_map(static fn(string $row): string => ChosenRow::rowDigest(substr($row, self::PLACE_BYTES)), $packed)
            : [];
        $differing = array_keys(array_filter($differs));
        sort($differing);

        return new self(
            array_map(self::placeOf(...), $packed),
            array_map($cellsOf, array_slice($packed, 0, self::SHOWN)),
            array_map(static fn(int $place): string => $side->columns[$place], $differing),
            array_diff($differing, $side->except, $side->places) !== [],
            array_intersect($differing, $side->places) !== [],
            $surplus,
            $digests === [] ? null : ChosenRow::groupDigest($digests),
            array_slice($digests, 0, self::SHOWN),
        );
    }

    public function beyondFirst(): int
    {
        return max(0, count($this->places) - 1);
    }

    private static function placeOf(string $row): int
    {
        /** @var array{1: int} $unpacked */
        $unpacked = unpack('J', $row);

        return $unpacked[1];
    }
}
