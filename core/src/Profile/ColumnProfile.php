<?php

declare(strict_types=1);

namespace NineTally\Core\Profile;

use NineTally\Core\Value\Kind;
use NineTally\Core\Value\Reading;

/**
 * What one column holds, seen value by value. Distinct values are counted exactly up to a limit and then no further.
 *
 * The shape of a value has every letter as a or A and every digit as 9, runs drawn together: "KB-014" is "A-9".
 */
final class ColumnProfile
{
    public const MOST_DISTINCT = 10_000;

    private const MOST_SHAPES = 1_000;

    private const LONGEST_KEPT = 200;

    private const INVISIBLE = '/(?![\t\n\r\x{85}])[\p{Cc}\p{Cf}]|\x{A0}/u';

    private int $values = 0;

    private int $blank = 0;

    private int $invisible = 0;

    private ?int $shortest = null;

    private int $longest = 0;

    /** @var array<string, int> kind => values that can be read so */
    private array $readable = ['number' => 0, 'date' => 0, 'date-time' => 0, 'yes-no' => 0];

    /** @var array<string, int>|null value => how often; null when there are too many */
    private ?array $distinct = [];

    /** @var array<string, int> */
    private array $shapes = [];

    /** @var array<string, array{string, string}> kind => the least and the greatest value, as that kind orders them */
    private array $ranges = [];

    /** @var array<string, Reading> */
    private readonly array $readings;

    private readonly Reading $identifiers;

    public function __construct(public readonly string $name)
    {
        $readings = [];
        foreach ([Kind::Number, Kind::Date, Kind::DateTime, Kind::YesNo] as $kind) {
            $readings[$kind->value] = new Reading($kind);
        }
        $this->readings = $readings;
        $this->identifiers = new Reading;
    }

    public function see(string $value): void
    {
        $this->values++;
        if ($value === '') {
            $this->blank++;

            return;
        }
        $length = mb_strlen($value);
        $this->shortest = min($length, $this->shortest ?? $length);
        $this->longest = max($length, $this->longest);
        $this->invisible += preg_match(self::INVISIBLE, $value) === 1 ? 1 : 0;
        $this->widen('text', $value);
        foreach ($this->readings as $kind => $reading) {
            // Leading zeros are how identifiers look: a column of them is no column of numbers.
            if ($kind === Kind::Number->value ? $this->identifiers->number($value) !== null : $reading->canRead($value)) {
                $this->readable[$kind]++;
                $this->widen($kind, $value);
            }
        }
        $this->countValue($value);
    }

    /** The kind as which every value can be read; text when there is none, or nothing to read. */
    public function kind(): Kind
    {
        $filled = $this->values - $this->blank;
        foreach (['yes-no', 'date', 'date-time', 'number'] as $kind) {
            // Ones and zeros alone may as well be numbers.
            $isCertain = $kind !== 'yes-no' || $this->readable['number'] < $filled;
            if ($filled > 0 && $this->readable[$kind] === $filled && $isCertain) {
                return Kind::from($kind);
            }
        }

        return Kind::Text;
    }

    /** @return array{name: string, values: int, blank: int, kind: string, distinct: int|null, lengths: array{int, int}|null, range: array{string, string}|null, invisible: int, most_frequent: list<array{value: string, count: int}>, shapes: list<array{shape: string, count: int}>} */
    public function toArray(): array
    {
        return [
            'name' => $this->name,
            'values' => $this->values,
            'blank' => $this->blank,
            'kind' => $this->kind()->value,
            'distinct' => $this->distinct === null ? null : count($this->distinct),
            'lengths' => $this->shortest === null ? null : [$this->shortest, $this->longest],
            'range' => isset($this->ranges[$this->kind()->value]) ? array_map(self::cut(...), $this->ranges[$this->kind()->value]) : null,
            'invisible' => $this->invisible,
            'most_frequent' => array_map(static fn(array $one): array => ['value' => $one[0], 'count' => $one[1]], self::most($this->distinct ?? [])),
            'shapes' => array_map(static fn(array $one): array => ['shape' => $one[0], 'count' => $one[1]], self::most($this->shapes)),
        ];
    }

    private function widen(string $kind, string $value): void
    {
        [$least, $greatest] = $this->ranges[$kind] ?? [$value, $value];
        $this->ranges[$kind] = [$this->order($kind, $value, $least) < 0 ? $value : $least, $this->order($kind, $value, $greatest) > 0 ? $value : $greatest];
    }

    private function order(string $kind, string $a, string $b): int
    {
        if ($a === $b) {
            return 0;
        }
        $reading = $this->readings[$kind] ?? null;
        if ($kind === Kind::Number->value) {
            [$first, $second] = [$reading?->number($a)?->toBigDecimal(), $reading?->number($b)?->toBigDecimal()];

            return $first === null || $second === null ? 0 : $first->compareTo($second);
        }

        return match ($kind) {
            'date', 'date-time' => $reading?->moment($a)?->secondsSinceEpoch() <=> $reading?->moment($b)?->secondsSinceEpoch(),
            default => strcmp($a, $b),
        };
    }

    private function countValue(string $value): void
    {
        $kept = strlen($value) > self::LONGEST_KEPT ? self::cut($value).'#'.hash('xxh128', $value) : $value;
        if ($this->distinct !== null) {
            $this->distinct[$kept] = ($this->distinct[$kept] ?? 0) + 1;
            $this->distinct = count($this->distinct) > self::MOST_DISTINCT ? null : $this->distinct;
        }
        $shape = preg_replace(['/\p{Lu}+/u', '/[\p{Ll}\p{Lo}]+/u', '/\d+/'], ['A', 'a', '9'], self::cut($value)) ?? '';
        if (isset($this->shapes[$shape]) || count($this->shapes) < self::MOST_SHAPES) {
            $this->shapes[$shape] = ($this->shapes[$shape] ?? 0) + 1;
        }
    }

    /**
     * @param  array<string, int>  $counts
     * @return list<array{string, int}> the five that occur most
     */
    private static function most(array $counts): array
    {
        arsort($counts);
        $most = array_slice($counts, 0, 5, true);

        return array_map(static fn(int|string $what, int $count): array => [(string) $what, $count], array_keys($most), $most);
    }

    private static function cut(string $value): string
    {
        return strlen($value) > self::LONGEST_KEPT ? mb_strcut($value, 0, self::LONGEST_KEPT) : $value;
    }
}
