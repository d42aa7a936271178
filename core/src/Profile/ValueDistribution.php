<?php

declare(strict_types=1);

namespace NineTally\Core\Profile;

use NineTally\Core\Value\DeclaredReading;
use NineTally\Core\Value\Kind;
use NineTally\Core\Value\Reading;

/**
 * How the values of a column lie on both sides, on one axis: numbers and days by size, a few values each by itself, other texts by
 * their length. Shares of the rows of each side; where there are many values they come from the samples of the profiles.
 *
 * @phpstan-import-type Declared from DeclaredReading
 *
 * @phpstan-type Column array{name: string, values: int, blank: int, kind: string, forms?: list<Declared>, distinct: int,
 *     distinct_is_exact: bool, lengths?: array{int, int}|null, range?: array{string, string}|null, sum?: string|null,
 *     most_frequent: list<array{value: string, count: int}>, shapes: list<array{shape: string, count: int}>, sample: list<string>, ...}
 * @phpstan-type Bin array{label: string, source: float, target: float}
 */
final readonly class ValueDistribution
{
    private const BINS = 10;

    /** Half the sum of the differences of all shares (total variation distance) from which on a change strikes the eye. */
    private const STRIKING = 0.15;

    /** @param list<Bin> $bins */
    private function __construct(public string $by, public array $bins, public bool $looksChanged) {}

    /**
     * @param  Column|null  $source
     * @param  Column|null  $target
     */
    public static function of(?array $source, ?array $target): self
    {
        $given = array_values(
            array_filter([$source, $target], static fn(?array $column): bool => $column !== null && $column['values'] > $column['blank']),
        );
        if ($given === []) {
            return new self('nothing', [], false);
        }
        [$by, $bins] = match (true) {
            self::all($given, static fn(array $column): bool => $column['distinct_is_exact'] && $column['distinct'] <= self::BINS) => [
                'value',
                self::byValue($source, $target),
            ],
            self::all($given, static fn(array $column): bool => $column['kind'] === Kind::Number->value) => [
                'number',
                self::byPlace(
                    $source,
                    $target,
                    static fn(string $value, Reading $reading): ?float => ($number = $reading->number($value)?->toBigDecimal()) === null
                        ? null
                        : (float) (string) $number,
                    self::decimal(...),
                    Kind::Number,
                ),
            ],
            self::all($given, static fn(array $column): bool => in_array($column['kind'], [Kind::Date->value, Kind::DateTime->value], true))
                => [
                'day',
                self::byPlace(
                    $source,
                    $target,
                    static fn(string $value, Reading $reading): ?float => ($moment = $reading->moment($value)) === null
                        ? null
                        : (float) $moment->secondsSinceEpoch(),
                    static fn(float $seconds): string => gmdate('Y-m-d', (int) $seconds),
                    Kind::DateTime,
                ),
            ],
            default => [
                'length',
                self::byPlace(
                    $source,
                    $target,
                    static fn(string $value, Reading $reading): float => (float) mb_strlen($value),
                    static fn(float $length): string => (string) (int) round($length),
                    Kind::Text,
                ),
            ],
        };

        return new self(
            $by,
            $bins,
            $source !== null &&
                $target !== null &&
                (self::distance($bins) > self::STRIKING || self::mostShape($source) !== self::mostShape($target)),
        );
    }

    /**
     * @param  list<Column>  $columns
     * @param  \Closure(Column): bool  $holds
     */
    private static function all(array $columns, \Closure $holds): bool
    {
        foreach ($columns as $column) {
            if (! $holds($column)) {
                return false;
            }
        }

        return true;
    }

    /**
     * @param  Column|null  $source
     * @param  Column|null  $target
     * @return list<Bin>
     */
    private static function byValue(?array $source, ?array $target): array
    {
        $bins = [];
        foreach (['source' => $source, 'target' => $target] as $side => $column) {
            if ($column === null) {
                continue;
            }
            foreach ($column['most_frequent'] as ['value' => $value, 'count' => $count]) {
                $bins[$value] ??= ['label' => (string) $value, 'source' => 0.0, 'target' => 0.0];
                $bins[$value][$side] = $count / max(1, $column['values']);
            }
        }
        uasort($bins, static fn(array $one, array $other): int => $other['source'] + $other['target'] <=> $one['source'] + $one['target']);

        return array_slice(array_values($bins), 0, 2 * self::BINS);
    }

    /**
     * @param  Column|null  $source
     * @param  Column|null  $target
     * @param  \Closure(string, Reading): (float|null)  $placeOf
     * @param  \Closure(float): string  $label
     * @return list<Bin>
     */
    private static function byPlace(?array $source, ?array $target, \Closure $placeOf, \Closure $label, Kind $kind): array
    {
        $places = ['source' => [], 'target' => []];
        foreach (['source' => $source, 'target' => $target] as $side => $column) {
            // Each side in the form that all its values fit, where there is just one.
            $reading = DeclaredReading::of(count($column['forms'] ?? []) === 1 ? $column['forms'][0] : [], $kind);
            foreach ($column['sample'] ?? [] as $value) {
                $place = $placeOf($value, $reading);
                if ($place !== null && is_finite($place)) {
                    $places[$side][] = $place;
                }
            }
        }
        $all = [...$places['source'], ...$places['target']];
        if ($all === []) {
            return [];
        }
        [$least, $most] = [min($all), max($all)];
        $width = ($most - $least) / self::BINS ?: 1.0;
        $shares = [];
        foreach (['source' => $source, 'target' => $target] as $side => $column) {
            $shares[$side] = array_fill(0, self::BINS, 0.0);
            $share =
                $column === null || $places[$side] === []
                    ? 0.0
                    : ($column['values'] - $column['blank']) / max(1, $column['values']) / count($places[$side]);
            foreach ($places[$side] as $place) {
                $shares[$side][min(self::BINS - 1, (int) (($place - $least) / $width))] += $share;
            }
        }

        return array_map(
            static fn(float $ofSource, float $ofTarget, int $bin): array => [
                'label' => $label($least + $bin * $width).' to '.$label($least + ($bin + 1) * $width),
                'source' => $ofSource,
                'target' => $ofTarget,
            ],
            $shares['source'],
            $shares['target'],
            range(0, self::BINS - 1),
        );
    }

    private static function decimal(float $number): string
    {
        $written = number_format($number, abs($number) < 100 ? 2 : 0, '.', ',');

        // Of whole numbers the zeros at the end count.
        return str_contains($written, '.') ? rtrim(rtrim($written, '0'), '.') : $written;
    }

    /** @param list<Bin> $bins */
    private static function distance(array $bins): float
    {
        return array_sum(array_map(static fn(array $bin): float => abs($bin['source'] - $bin['target']), $bins)) / 2;
    }

    /** @param Column $column */
    private static function mostShape(array $column): string
    {
        return $column['shapes'][0]['shape'] ?? '';
    }
}
