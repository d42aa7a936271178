<?php

declare(strict_types=1);

namespace NineTally\Core\Profile;

use Brick\Math\BigDecimal;
use NineTally\Core\Value\Kind;
use NineTally\Core\Value\Reading;
use Random\Engine\Mt19937;
use Random\Randomizer;

/**
 * What one column holds, seen value by value.
 *
 * The shape of a value has every letter as a or A and every digit as 9, runs drawn together: "KB-014" is "A-9".
 */
final class ColumnProfile
{
    /** Values kept to show how they lie, drawn evenly from all (Vitter 1985, Algorithm R) with a fixed seed. */
    private const SAMPLE = 400;

    private const MOST_FREQUENT = 10;

    /** What systems write for want of a value; no date has a day or month zero. */
    private const BLANK_TOKENS = ['null', 'nil', 'none', 'n/a', 'na', '-', '--', '?', '.', 'unknown', 'tbc', '(null)', '00.00.0000', '0000-00-00', '00/00/0000', '1900-01-01', '9999-12-31'];

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

    private int $lineEnds = 0;

    private ?int $fewestBytes = null;

    private int $mostBytes = 0;

    private ?BigDecimal $sum = null;

    /** @var array<string, int> token => how often */
    private array $tokens = [];

    /** @var list<string> */
    private array $sample = [];

    private readonly Randomizer $random;

    private readonly DistinctCount $distinct;

    /** @var array<string, int> */
    private array $shapes = [];

    /** @var array<string, array{string, string}> kind => the least and the greatest value, as that kind orders them */
    private array $ranges = [];

    /** @var array<string, Reading> */
    private readonly array $readings;

    private readonly Reading $identifiers;

    public function __construct(public readonly string $name, DistinctBudget $budget = new DistinctBudget)
    {
        $this->distinct = new DistinctCount($budget);
        $this->random = new Randomizer(new Mt19937(1));
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
        $bytes = strlen($value);
        $this->fewestBytes = min($bytes, $this->fewestBytes ?? $bytes);
        $this->mostBytes = max($bytes, $this->mostBytes);
        $this->lineEnds += strpbrk($value, "\r\n") === false ? 0 : 1;
        if ($bytes <= 12 && in_array(strtolower($value), self::BLANK_TOKENS, true) || trim($value) === '') {
            $this->tokens[$value] = ($this->tokens[$value] ?? 0) + 1;
        }
        $this->keepSample($value);
        $this->invisible += self::hasInvisible($value) ? 1 : 0;
        $this->widen('text', $value);
        foreach ($this->readings as $kind => $reading) {
            // Leading zeros are how identifiers look: a column of them is no column of numbers.
            if ($kind === Kind::Number->value ? $this->identifiers->number($value) !== null : $reading->canRead($value)) {
                $this->readable[$kind]++;
                if ($kind === Kind::Number->value) {
                    $number = $this->identifiers->number($value)?->toBigDecimal();
                    $this->sum = $number === null ? $this->sum : ($this->sum === null ? $number : $this->sum->plus($number));
                }
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

    /** Why it is of that kind, in words. */
    public function evidence(): string
    {
        $filled = $this->values - $this->blank;
        if ($filled === 0) {
            return 'there is no value';
        }
        if ($this->kind() !== Kind::Text) {
            return sprintf('all %s values can be read so', number_format($filled));
        }
        $readable = array_filter($this->readable, static fn(int $count): bool => $count > 0);
        arsort($readable);
        $best = array_key_first($readable);

        return $best === null ? 'no value is a number, a date or yes or no' : sprintf('%s of %s values are no %s', number_format($filled - $readable[$best]), number_format($filled), $best === 'yes-no' ? 'yes or no' : $best);
    }

    /** @return array{name: string, values: int, blank: int, kind: string, evidence: string, distinct: int, distinct_is_exact: bool, lengths: array{int, int}|null, bytes: array{int, int}|null, range: array{string, string}|null, sum: string|null, invisible: int, line_ends: int, blank_tokens: list<array{value: string, count: int}>, most_frequent: list<array{value: string, count: int}>, shapes: list<array{shape: string, count: int}>, sample: list<string>} */
    public function toArray(): array
    {
        return [
            'name' => $this->name,
            'values' => $this->values,
            'blank' => $this->blank,
            'kind' => $this->kind()->value,
            'evidence' => $this->evidence(),
            'distinct' => $this->distinct->count(),
            'distinct_is_exact' => $this->distinct->isExact(),
            'lengths' => $this->shortest === null ? null : [$this->shortest, $this->longest],
            'bytes' => $this->fewestBytes === null ? null : [$this->fewestBytes, $this->mostBytes],
            'range' => isset($this->ranges[$this->kind()->value]) ? array_map(self::cut(...), $this->ranges[$this->kind()->value]) : null,
            'sum' => $this->kind() === Kind::Number && $this->sum !== null ? (string) $this->sum : null,
            'invisible' => $this->invisible,
            'line_ends' => $this->lineEnds,
            'blank_tokens' => array_map(static fn(array $one): array => ['value' => $one[0], 'count' => $one[1]], self::most($this->tokens)),
            'most_frequent' => array_map(static fn(array $one): array => ['value' => $one[0], 'count' => $one[1]], self::most($this->distinct->values())),
            'shapes' => array_map(static fn(array $one): array => ['shape' => $one[0], 'count' => $one[1]], self::most($this->shapes)),
            'sample' => $this->sample,
        ];
    }

    public static function shapeOf(string $value): string
    {
        return preg_replace(['/\p{Lu}+/u', '/[\p{Ll}\p{Lo}]+/u', '/\d+/'], ['A', 'a', '9'], self::cut($value)) ?? '';
    }

    public static function hasInvisible(string $value): bool
    {
        return preg_match(self::INVISIBLE, $value) === 1;
    }

    private function keepSample(string $value): void
    {
        $seen = $this->values - $this->blank;
        if ($seen <= self::SAMPLE) {
            $this->sample[] = self::cut($value);
        } elseif (($place = $this->random->getInt(1, $seen)) <= self::SAMPLE) {
            array_splice($this->sample, $place - 1, 1, [self::cut($value)]);
        }
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
        $this->distinct->see($kept);
        $shape = self::shapeOf($value);
        if (isset($this->shapes[$shape]) || count($this->shapes) < self::MOST_SHAPES) {
            $this->shapes[$shape] = ($this->shapes[$shape] ?? 0) + 1;
        }
    }

    /**
     * @param  array<string, int>  $counts
     * @return list<array{string, int}> those that occur most
     */
    private static function most(array $counts): array
    {
        arsort($counts);
        $most = array_slice($counts, 0, self::MOST_FREQUENT, true);

        return array_map(static fn(int|string $what, int $count): array => [(string) $what, $count], array_keys($most), $most);
    }

    private static function cut(string $value): string
    {
        return strlen($value) > self::LONGEST_KEPT ? mb_strcut($value, 0, self::LONGEST_KEPT) : $value;
    }
}
