<?php

declare(strict_types=1);

namespace NineTally\Core\Advice;

use NineTally\Core\Profile\ValueShape;
use NineTally\Core\Value\YesNoWords;

/**
 * What the values of a column are like, in little memory: of all distinct values those with the smallest hashes, each with how often it
 * stands (bottom-k sketch: Cohen, Kaplan 2007), so that two columns that share values keep the same ones. Values are taken whatever
 * their case, spacing and number form, for systems write them differently.
 */
final class ValueSketch
{
    private const KEPT = 1_024;

    private const MOST_SHAPES = 200;

    private const MEMO = 2_048;

    public int $rows = 0;

    public int $blank = 0;

    private int $lengths = 0;

    /** @var array<string, int> hash => how often */
    private array $kept = [];

    /** The largest hash that may still be kept; at first any may, for all begin with an h. */
    private string $largest = 'i';

    /** @var array<string, int> */
    private array $shapes = [];

    /** @var array<string, int> kind => values that can be read so */
    private array $kinds = ['number' => 0, 'date' => 0];

    /** @var array<string, array{string, string, bool, bool}> value => hash, shape, whether it is a number, a date */
    private array $memo = [];

    /** @var array<string, int>|null value => rows, while there are no more than two values */
    private ?array $few = [];

    /** @var array{yes: int, no: int}|null rows, where all values are words for yes and no of one pair */
    private ?array $yesNo = null;

    public function __construct(public readonly string $name) {}

    public function see(string $value): void
    {
        $this->rows++;
        if (trim($value) === '') {
            $this->blank++;

            return;
        }
        [$hash, $shape, $isNumber, $isDate] = $this->memo[$value] ?? $this->remembered($value);
        $this->lengths += strlen($value);
        if ($this->few !== null) {
            $this->few[$value] = ($this->few[$value] ?? 0) + 1;
            $this->few = count($this->few) > 2 ? null : $this->few;
        }
        $this->kinds['number'] += $isNumber ? 1 : 0;
        $this->kinds['date'] += $isDate ? 1 : 0;
        if (isset($this->shapes[$shape]) || count($this->shapes) < self::MOST_SHAPES) {
            $this->shapes[$shape] = ($this->shapes[$shape] ?? 0) + 1;
        }
        if ($hash < $this->largest) {
            $this->kept[$hash] = ($this->kept[$hash] ?? 0) + 1;
            if (count($this->kept) > 2 * self::KEPT) {
                $this->shrink();
            }
        }
    }

    public function finish(): void
    {
        $this->shrink();
        $this->memo = [];
        $words = $this->few === null ? null : YesNoWords::among(array_map(strval(...), array_keys($this->few)));
        $this->yesNo = $words === null ? null : ['yes' => $this->few[$words[0][0]] ?? 0, 'no' => $this->few[$words[1][0]] ?? 0];
    }

    /** Whether both columns say yes and no, in whatever words. */
    public function bothSayYesAndNo(self $other): bool
    {
        return $this->yesNo !== null && $other->yesNo !== null;
    }

    public function isEmpty(): bool
    {
        return $this->rows === $this->blank;
    }

    /** @return int an estimate above KEPT */
    public function distinct(): int
    {
        if (count($this->kept) < self::KEPT) {
            return count($this->kept);
        }
        /** @var array{high: int} $largest */
        $largest = unpack('Nhigh', $this->largest, 1);

        return (int) round((self::KEPT - 1) / (max(1, $largest['high']) / 4_294_967_296));
    }

    /** The kind that nearly all values can be read as; text where there is none. */
    public function kind(): string
    {
        $filled = max(1, $this->rows - $this->blank);
        foreach (['date', 'number'] as $kind) {
            if ($this->kinds[$kind] >= 0.95 * $filled) {
                return $kind;
            }
        }

        return 'text';
    }

    /** @return float characters of a value, on average */
    public function meanLength(): float
    {
        return $this->lengths / max(1, $this->rows - $this->blank);
    }

    /** @return float the share of the distinct values of the smaller one that stand in the other, from 0 to 1 */
    public function overlap(self $other): float
    {
        [$mine, $others] = $this->comparable($other);

        return $mine === [] || $others === [] ? 0.0 : count(array_intersect_key($mine, $others)) / min(count($mine), count($others));
    }

    /** @return float the share of rows that the common values stand for in both, from 0 to 1: whether they also stand equally often */
    public function commonMass(self $other): float
    {
        [$mine, $others] = $this->comparable($other);
        [$sum, $otherSum] = [max(1, array_sum($mine)), max(1, array_sum($others))];
        $common = 0.0;
        foreach (array_intersect_key($mine, $others) as $hash => $count) {
            $common += min($count / $sum, $others[$hash] / $otherSum);
        }

        return $common;
    }

    /** @return float how alike the shapes of values are distributed, from 0 to 1 */
    public function shapeLikeness(self $other): float
    {
        [$sum, $otherSum] = [max(1, array_sum($this->shapes)), max(1, array_sum($other->shapes))];
        $common = 0.0;
        foreach (array_intersect_key($this->shapes, $other->shapes) as $shape => $count) {
            $common += min($count / $sum, $other->shapes[$shape] / $otherSum);
        }

        return $common;
    }

    /** @return array{array<string, int>, array<string, int>} what both have kept of the same range of hashes */
    private function comparable(self $other): array
    {
        if ($this->yesNo !== null && $other->yesNo !== null) {
            return [$this->yesNo, $other->yesNo];
        }
        $limit = min($this->largest, $other->largest);
        $isBelow = static fn(string $hash): bool => strcmp($hash, $limit) <= 0;

        return [array_filter($this->kept, $isBelow, ARRAY_FILTER_USE_KEY), array_filter($other->kept, $isBelow, ARRAY_FILTER_USE_KEY)];
    }

    private function shrink(): void
    {
        if (count($this->kept) <= self::KEPT) {
            return;
        }
        ksort($this->kept, SORT_STRING);
        $this->kept = array_slice($this->kept, 0, self::KEPT, true);
        $this->largest = (string) array_key_last($this->kept);
    }

    /** @return array{string, string, bool, bool} */
    private function remembered(string $value): array
    {
        $likely = LikelyValue::of($value);
        if (count($this->memo) === self::MEMO) {
            $this->memo = [];
        }
        // A letter in front keeps PHP from making an integer of a key.
        $facts = [
            'h'.substr(hash('xxh3', $likely->canonical, true), 0, 8),
            ValueShape::of($value),
            $likely->isNumber,
            $likely->isDate,
        ];
        if (strlen($value) <= 200) {
            $this->memo[$value] = $facts;
        }

        return $facts;
    }
}
