<?php

declare(strict_types=1);

namespace NineTally\Core\Profile;

use NineTally\Core\Value\DeclaredReading;
use NineTally\Core\Value\Kind;

/**
 * What differs between the profiles of two columns that belong together, the weightiest first: facts with the figure of each side, in no
 * words.
 *
 * @phpstan-import-type Column from ValueDistribution
 *
 * @phpstan-type Fact array{fact: string, source: string|null, target: string|null}
 */
final readonly class ColumnDifference
{
    /** Values of one side that are named. */
    private const NAMED = 3;

    /** How much each fact tells, where it is not its size that does. */
    private const WEIGHTS = [
        'only' => 100.0,
        'kind' => 60.0,
        'values' => 40.0,
        'shorter' => 35.0,
        'sum' => 25.0,
        'lowest' => 20.0,
        'highest' => 20.0,
        'longest' => 10.0,
        'form' => 5.0,
    ];

    /**
     * @param  list<Fact>  $facts
     * @param  float  $weight  of all of them together; 0 where nothing differs
     */
    private function __construct(public array $facts, public float $weight) {}

    /**
     * @param  Column|null  $source
     * @param  Column|null  $target
     * @param  bool  $isMasked  facts that hold values are left out
     */
    public static function of(?array $source, ?array $target, bool $isMasked): self
    {
        if ($source === null || $target === null) {
            return new self([self::fact('only', $source === null ? null : '', $target === null ? null : '')], self::WEIGHTS['only']);
        }
        $weighted = [];
        foreach ([self::blank($source, $target), ...self::kinds($source, $target), ...self::lengths($source, $target)] as $fact) {
            $weighted[] = $fact;
        }
        foreach (
            $isMasked ? [] : [self::values($source, $target), ...self::ends($source, $target), self::sums($source, $target)]
            as $fact
        ) {
            $weighted[] = $fact;
        }
        $weighted = array_values(array_filter($weighted));
        usort($weighted, static fn(array $one, array $other): int => $other[0] <=> $one[0]);

        return new self(array_column($weighted, 1), (float) array_sum(array_column($weighted, 0)));
    }

    /** @return Fact */
    private static function fact(string $fact, ?string $source, ?string $target): array
    {
        return ['fact' => $fact, 'source' => $source, 'target' => $target];
    }

    /**
     * @param  Column  $source
     * @param  Column  $target
     * @return array{float, Fact}|null
     */
    private static function blank(array $source, array $target): ?array
    {
        [$share, $shareThere] = [$source['blank'] / max(1, $source['values']), $target['blank'] / max(1, $target['values'])];
        // Sides of different sizes have different numbers of blanks by that alone.
        $apart = abs($share - $shareThere);
        $isTold = $source['values'] === $target['values'] ? $source['blank'] !== $target['blank'] : $apart > 0.005;

        return $isTold ? [10 + 80 * $apart, self::fact('blank', (string) $source['blank'], (string) $target['blank'])] : null;
    }

    /**
     * @param  Column  $source
     * @param  Column  $target
     * @return list<array{float, Fact}>
     */
    private static function kinds(array $source, array $target): array
    {
        if ($source['values'] === $source['blank'] || $target['values'] === $target['blank']) {
            return [];
        }

        return match (true) {
            $source['kind'] !== $target['kind'] => [[self::WEIGHTS['kind'], self::fact('kind', $source['kind'], $target['kind'])]],
            ($source['forms'] ?? []) !== ($target['forms'] ?? []) => [[self::WEIGHTS['form'], self::fact('form', null, null)]],
            default => [],
        };
    }

    /**
     * @param  Column  $source
     * @param  Column  $target
     * @return list<array{float, Fact}>
     */
    private static function lengths(array $source, array $target): array
    {
        [$longest, $longestThere] = [$source['lengths'][1] ?? null, $target['lengths'][1] ?? null];
        if ($source['kind'] !== Kind::Text->value || $longest === null || $longestThere === null || $longest === $longestThere) {
            return [];
        }
        $fact = $longestThere < $longest ? 'shorter' : 'longest';

        return [[self::WEIGHTS[$fact], self::fact($fact, (string) $longest, (string) $longestThere)]];
    }

    /**
     * @param  Column  $source
     * @param  Column  $target
     * @return array{float, Fact}|null values of which a column has few, that only one side has
     */
    private static function values(array $source, array $target): ?array
    {
        foreach ([$source, $target] as $column) {
            if (! $column['distinct_is_exact'] || $column['distinct'] > count($column['most_frequent'])) {
                return null;
            }
        }
        [$here, $there] = [array_column($source['most_frequent'], 'value'), array_column($target['most_frequent'], 'value')];
        [$onlyHere, $onlyThere] = [self::only($here, $there), self::only($there, $here)];

        return $onlyHere === '' && $onlyThere === '' ? null : [
            self::WEIGHTS['values'],
            self::fact('values', $onlyHere === '' ? null : $onlyHere, $onlyThere === '' ? null : $onlyThere),
        ];
    }

    /**
     * @param  Column  $source
     * @param  Column  $target
     * @return list<array{float, Fact}> lowest and highest, where they are not the same whatever form they are written in
     */
    private static function ends(array $source, array $target): array
    {
        if ($source['kind'] !== $target['kind'] || $source['kind'] === Kind::Text->value) {
            return [];
        }
        $kind = Kind::from($source['kind']);
        $facts = [];
        foreach (['lowest' => 0, 'highest' => 1] as $fact => $end) {
            [$here, $there] = [$source['range'][$end] ?? null, $target['range'][$end] ?? null];
            if ($here !== null && $there !== null && self::canonical($kind, $source, $here) !== self::canonical($kind, $target, $there)) {
                $facts[] = [self::WEIGHTS[$fact], self::fact($fact, $here, $there)];
            }
        }

        return $facts;
    }

    /**
     * @param  Column  $source
     * @param  Column  $target
     * @return array{float, Fact}|null
     */
    private static function sums(array $source, array $target): ?array
    {
        [$here, $there] = [$source['sum'] ?? null, $target['sum'] ?? null];
        $reading = DeclaredReading::of([], Kind::Number);

        return $here === null || $there === null || $reading->number($here)?->canonical() === $reading->number($there)?->canonical()
            ? null
            : [self::WEIGHTS['sum'], self::fact('sum', $here, $there)];
    }

    /**
     * @param  list<string>  $values
     * @param  list<string>  $others
     */
    private static function only(array $values, array $others): string
    {
        return implode(', ', array_slice(array_values(array_diff($values, $others)), 0, self::NAMED));
    }

    /** @param Column $column */
    private static function canonical(Kind $kind, array $column, string $value): string
    {
        $reading = DeclaredReading::of($column['forms'][0] ?? [], $kind);

        return match ($kind) {
            Kind::Number => $reading->number($value)?->canonical(),
            Kind::YesNo => $reading->yesOrNo($value) === true ? 'yes' : 'no',
            default => $reading->moment($value)?->canonical(),
        } ?? $value;
    }
}
