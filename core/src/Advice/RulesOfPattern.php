<?php

declare(strict_types=1);

namespace NineTally\Core\Advice;

use NineTally\Core\Cause\CauseId;
use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Value\Decimal;
use NineTally\Core\Value\DeclaredRounding;
use NineTally\Core\Value\Kind;
use NineTally\Core\Value\Reading;

/**
 * Rules of a column pair that would let cells of a pattern pass, each with how many of them: causes of form, a crosswalk of all value
 * pairs, a
 * declared rounding, tolerances in steps. Which of them is right nobody can tell from the values, so none is chosen.
 *
 * @phpstan-type Offer array{kind: 'forgives'|'crosswalk'|'rounding'|'tolerance', rule: array<string, mixed>, settles: int}
 * @phpstan-type CountedPair array{source: string, target: string, cells: int}
 */
final readonly class RulesOfPattern
{
    /** More value pairs are no table that somebody keeps. */
    public const MOST_ENTRIES = 1_000;

    private const MOST_STEPS = 6;

    private const MODES = ['half-up', 'half-even', 'half-down', 'cut'];

    public function __construct(private ColumnPair $pair, private Reading $source, private Reading $target) {}

    /**
     * @param  list<CountedPair>  $values  which values became which
     * @param  bool  $areAll  whether there are no others
     * @return list<Offer>
     */
    public function of(string $cause, int $cells, array $values, bool $areAll): array
    {
        $forms = explode('+', $cause);
        if (array_filter($forms, static fn(string $one): bool => CauseId::tryFrom($one)?->isOfForm() !== true) === []) {
            return [['kind' => 'forgives', 'rule' => ['forgives' => $forms], 'settles' => $cells]];
        }

        return [
            ...($cause === CauseId::Translated->value && $areAll ? $this->crosswalk($values) : []),
            ...($this->pair->kind === Kind::Number ? [...$this->roundings($values), ...$this->tolerances($values)] : []),
        ];
    }

    /**
     * @param  list<CountedPair>  $values
     * @return list<Offer>
     */
    private function crosswalk(array $values): array
    {
        return $values === [] || count($values) > self::MOST_ENTRIES ? [] : [
            [
                'kind' => 'crosswalk',
                'rule' => [
                    'crosswalk' => array_map(
                        static fn(array $one): array => ['source' => $one['source'], 'target' => $one['target']],
                        $values,
                    ),
                ],
                'settles' => array_sum(array_column($values, 'cells')),
            ],
        ];
    }

    /**
     * Rounded to the decimals that the coarser side has, in each way that explains some cell; the way that explains most comes first.
     *
     * @param  list<CountedPair>  $values
     * @return list<Offer>
     */
    private function roundings(array $values): array
    {
        $settled = [];
        foreach ($values as ['source' => $source, 'target' => $target, 'cells' => $cells]) {
            [$was, $is] = [$this->source->number($source), $this->target->number($target)];
            if ($was === null || $is === null || $was->places() === $is->places()) {
                continue;
            }
            [$from, $to, $places] = [$was->toBigDecimal(), $is->toBigDecimal(), min($was->places(), $is->places())];
            foreach (self::MODES as $mode) {
                if ($from !== null && $to !== null && (new DeclaredRounding($places, $mode))->joins($from, $to)) {
                    $settled["{$places} {$mode}"] = ($settled["{$places} {$mode}"] ?? 0) + $cells;
                }
            }
        }
        arsort($settled);
        $offers = [];
        foreach (array_slice($settled, 0, count(self::MODES), true) as $way => $cells) {
            [$places, $mode] = explode(' ', $way);
            $offers[] = ['kind' => 'rounding', 'rule' => ['rounding' => ['places' => (int) $places, 'mode' => $mode]], 'settles' => $cells];
        }

        return $offers;
    }

    /**
     * One and five times powers of ten, where each settles more than the one before, and last the largest difference, which settles all.
     *
     * @param  list<CountedPair>  $values
     * @return list<Offer>
     */
    private function tolerances(array $values): array
    {
        $apart = [];
        foreach ($values as ['source' => $source, 'target' => $target, 'cells' => $cells]) {
            $difference = $this->difference($source, $target);
            if ($difference !== null) {
                $apart[] = [$difference, $cells];
            }
        }
        usort($apart, static fn(array $one, array $other): int => self::compare($one[0], $other[0]));
        if ($apart === []) {
            return [];
        }
        $offers = [];
        [$settled, $next] = [0, 0];
        foreach ($this->steps($apart[0][0], $apart[count($apart) - 1][0]) as $step) {
            $before = $settled;
            for (; $next < count($apart) && self::compare($apart[$next][0], $step) <= 0; $next++) {
                $settled += $apart[$next][1];
            }
            if ($settled > $before) {
                $offers[] = [
                    'kind' => 'tolerance',
                    'rule' => ['tolerance' => ['by' => 'absolute', 'most' => $step->written()]],
                    'settles' => $settled,
                ];
            }
        }

        // The smallest ones say how fine it is, the largest how much it takes.
        return count($offers) <= self::MOST_STEPS
            ? $offers
            : [...array_slice($offers, 0, self::MOST_STEPS - 1), $offers[count($offers) - 1]];
    }

    /** @return \Generator<int, Decimal> */
    private function steps(Decimal $smallest, Decimal $largest): \Generator
    {
        for (
            $power = strlen($smallest->digits) + $smallest->exponent - 1;
            $power < strlen($largest->digits) + $largest->exponent;
            $power++
        ) {
            foreach (['1', '5'] as $digit) {
                $step = Decimal::of(false, $digit, '', $power);
                if (self::compare($step, $largest) >= 0) {
                    break 2;
                }
                yield $step;
            }
        }
        yield $largest;
    }

    /** Without its sign; null where one side is no number. */
    private function difference(string $source, string $target): ?Decimal
    {
        [$was, $is] = [$this->source->number($source), $this->target->number($target)];
        $apart = $was === null || $is === null ? null : $is->minus($was);

        return $apart === null || $apart->isZero() ? null : Decimal::of(false, $apart->digits, '', $apart->exponent);
    }

    private static function compare(Decimal $one, Decimal $other): int
    {
        $apart = $one->minus($other);

        return match (true) {
            $apart === null || $apart->isZero() => 0,
            $apart->isNegative => -1,
            default => 1,
        };
    }
}
