<?php

declare(strict_types=1);

namespace NineTally\Core\Profile;

use NineTally\Core\Value\Moment;

/** How many values of a column are dates in one writing, and between which of them all lie. */
final class WrittenDates
{
    public int $count = 0;

    /** Whether one of them has a time that is not midnight. */
    public bool $hasTimes = false;

    /** @var array{string, string, int, int}|null the earliest and the latest value, and where they lie */
    private ?array $range = null;

    public function __construct(private string $pattern) {}

    /** @param string $pattern the strictest that reads the value */
    public function see(string $value, Moment $moment, string $pattern): void
    {
        // A value with one digit where others have two: the form that takes either.
        foreach (['d', 'M', 'H', 'h'] as $letter) {
            $isShort = preg_match("/(?<!{$letter}){$letter}(?!{$letter})/", $pattern) === 1;
            $this->pattern = $isShort
                ? preg_replace("/(?<!{$letter}){$letter}{$letter}(?!{$letter})/", $letter, $this->pattern) ?? $pattern
                : $this->pattern;
        }
        $this->seeAt($value, $moment->secondsSinceEpoch(), $moment->isDay());
    }

    public function seeAt(string $value, int $place, bool $isDay): void
    {
        $this->count++;
        $this->hasTimes = $this->hasTimes || ! $isDay;
        $range = $this->range ?? [$value, $value, $place, $place];
        $this->range = [
            $place < $range[2] ? $value : $range[0],
            $place > $range[3] ? $value : $range[1],
            min($place, $range[2]),
            max($place, $range[3]),
        ];
    }

    public function pattern(): string
    {
        return $this->pattern;
    }

    /** @return array{string, string}|null the earliest and the latest value of all */
    public static function range(self ...$writings): ?array
    {
        $all = null;
        foreach ($writings as $writing) {
            $range = $writing->range;
            if ($range !== null) {
                $all ??= $range;
                $all = [
                    $range[2] < $all[2] ? $range[0] : $all[0],
                    $range[3] > $all[3] ? $range[1] : $all[1],
                    min($range[2], $all[2]),
                    max($range[3], $all[3]),
                ];
            }
        }

        return $all === null ? null : [$all[0], $all[1]];
    }
}
