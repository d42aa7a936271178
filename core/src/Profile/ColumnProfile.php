<?php

declare(strict_types=1);

namespace NineTally\Core\Profile;

use NineTally\Core\Totals\ExactSum;
use NineTally\Core\Value\DeclaredInWords;
use NineTally\Core\Value\DeclaredReading;
use NineTally\Core\Value\Kind;

/**
 * What one column holds, seen value by value.
 *
 * @phpstan-import-type Declared from DeclaredReading
 * @phpstan-import-type ReadingDocument from PossibleReading
 */
final class ColumnProfile
{
    private const MEMO = 4_096;

    private const MEMO_BYTES = 200;

    private int $values = 0;

    private int $blank = 0;

    private int $invisible = 0;

    private ?int $shortest = null;

    private int $longest = 0;

    /** @var array<string, int> kind => values that can be read so */
    private array $readable = ['text' => 0, 'number' => 0, 'date' => 0, 'date-time' => 0, 'yes-no' => 0];

    private int $lineEnds = 0;

    private ?int $fewestBytes = null;

    private int $mostBytes = 0;

    private readonly ExactSum $sum;

    /** @var array<string, int> token => how often */
    private array $tokens = [];

    private readonly CountedValues $counted;

    private readonly ValueRange $ranges;

    private readonly FactFinder $facts;

    private readonly ColumnForms $forms;

    /** @var array<string, ValueFacts> of values that were seen lately */
    private array $memo = [];

    public function __construct(public readonly string $name, DistinctBudget $budget = new DistinctBudget)
    {
        $this->sum = new ExactSum;
        $this->ranges = new ValueRange;
        $this->counted = new CountedValues($budget);
        $this->facts = new FactFinder;
        $this->forms = new ColumnForms;
    }

    public function see(string $value): void
    {
        $this->seeAll([$value]);
    }

    /**
     * Values of the column as they follow each other. Of a few thousand at once, those that are alike cost as much as one.
     *
     * @param  array<string>  $values
     */
    public function seeAll(array $values): void
    {
        $this->values += count($values);
        $times = array_count_values($values);
        if (isset($times[''])) {
            $this->blank += $times[''];
            unset($times['']);
            $values = array_filter($values, static fn(string $value): bool => $value !== '');
        }
        $this->counted->draw($values);
        foreach ($times as $value => $count) {
            $this->seeOne((string) $value, $count);
        }
    }

    private function seeOne(string $value, int $times): void
    {
        $facts = $this->memo[$value] ?? $this->remembered($value);
        $this->shortest = min($facts->length, $this->shortest ?? $facts->length);
        $this->longest = max($facts->length, $this->longest);
        $bytes = strlen($value);
        $this->fewestBytes = min($bytes, $this->fewestBytes ?? $bytes);
        $this->mostBytes = max($bytes, $this->mostBytes);
        $this->lineEnds += $facts->hasLineEnd ? $times : 0;
        $this->invisible += $facts->hasInvisible ? $times : 0;
        if ($facts->isToken) {
            $this->tokens[$value] = ($this->tokens[$value] ?? 0) + $times;
        }
        $this->read($value, $facts->read, $times);
        $this->counted->see($value, $facts->shape, $times);
    }

    private function read(string $value, PlainReadings $read, int $times): void
    {
        $this->readable['text'] += $times;
        $this->ranges->widen('text', $value, $value);
        if ($read->number !== null) {
            $this->readable['number'] += $times;
            $this->ranges->widenNumbers($value, $read->number, $read->size);
            $this->sum->add($read->number, $times);
        }
        if ($read->moment !== null) {
            $this->readable['date-time'] += $times;
            $this->ranges->widen('date-time', $value, $read->moment);
            if ($read->isDay) {
                $this->readable['date'] += $times;
                $this->ranges->widen('date', $value, $read->moment);
            }
        }
        if ($read->yes !== null) {
            $this->readable['yes-no'] += $times;
            $this->ranges->widen('yes-no', $value, $read->yes ? 1 : 0);
        }
    }

    private function remembered(string $value): ValueFacts
    {
        $facts = $this->facts->of($value);
        if (! $facts->isToken) {
            $this->forms->see($value, $facts->read->number !== null, $facts->read->moment !== null);
        }
        if (strlen($value) <= self::MEMO_BYTES) {
            if (count($this->memo) === self::MEMO) {
                $this->memo = [];
            }
            $this->memo[$value] = $facts;
        }

        return $facts;
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
        $proposals = $this->proposals();

        return $proposals === [] ? Kind::Text : $proposals[0]->kind;
    }

    /** @return list<PossibleReading> those that need a declaration, and read every value; several where nobody can tell which is meant */
    private function proposals(): array
    {
        $filled = $this->values - $this->blank;
        foreach (['yes-no', 'date', 'date-time', 'number'] as $kind) {
            if ($filled === 0 || $this->readable[$kind] === $filled) {
                return [];
            }
        }
        $isSure = static fn(PossibleReading $one): bool => $one->unread === 0 && ! $one->isWeak;

        return $this->tokens === [] ? array_values(array_filter($this->forms->readings(), $isSure)) : [];
    }

    /** @return list<PossibleReading> all kinds that nearly all values could be read as, with a declaration or without one */
    private function readings(): array
    {
        $filled = $this->values - $this->blank - array_sum($this->tokens);
        $readings = [];
        foreach (['yes-no', 'date', 'date-time', 'number'] as $kind) {
            if (
                $filled > 0 &&
                $this->readable[$kind] >= 0.95 * $filled &&
                ! ($kind === 'date-time' && $this->readable['date'] === $this->readable[$kind])
            ) {
                $readings[] = new PossibleReading(Kind::from($kind), [], max(0, $filled - $this->readable[$kind]));
            }
        }

        // What has to be declared is worth it only if it reads more.
        $family = static fn(PossibleReading $one): string => str_replace('-time', '', $one->kind->value);
        $plain = array_combine(array_map($family, $readings), array_column($readings, 'unread'));
        $isMore = static fn(PossibleReading $one): bool => $one->isWeak || $one->unread < ($plain[$family($one)] ?? PHP_INT_MAX);

        return [...$readings, ...array_values(array_filter($this->forms->readings(), $isMore))];
    }

    /** Why it is of that kind, in words. */
    public function evidence(): string
    {
        $filled = $this->values - $this->blank;
        if ($filled === 0) {
            return 'there is no value';
        }
        if ($this->kind() !== Kind::Text) {
            $proposals = $this->proposals();

            return sprintf(
                'all %s values can be read so%s',
                number_format($filled),
                match (count($proposals)) {
                    0 => '',
                    1 => ', if that is declared: '.implode(', ', DeclaredInWords::of($proposals[0]->declared)),
                    default => ', if that is declared; it fits several forms: '.
                        implode(
                            ' or ',
                            array_map(
                                static fn(PossibleReading $one): string => implode(', ', DeclaredInWords::of($one->declared)),
                                $proposals,
                            ),
                        ),
                },
            );
        }
        $readable = array_filter(array_diff_key($this->readable, ['text' => 0]), static fn(int $count): bool => $count > 0);
        arsort($readable);
        $best = array_key_first($readable);

        return $best === null
            ? 'no value is a number, a date or yes or no'
            : sprintf(
                '%s of %s values are no %s',
                number_format($filled - $readable[$best]),
                number_format($filled),
                $best === 'yes-no' ? 'yes or no' : $best,
            );
    }

    /**
     * @return array{name: string, values: int, blank: int, kind: string, forms: list<Declared>, readings: list<ReadingDocument>,
     *     evidence: string, distinct: int, distinct_is_exact: bool, lengths: array{int, int}|null, bytes: array{int, int}|null,
     *     range: array{string, string}|null,
     *     sum: string|null, invisible: int, line_ends: int, blank_tokens: list<array{value: string, count: int}>,
     *     most_frequent: list<array{value: string, count: int}>, shapes: list<array{shape: string, count: int}>, sample: list<string>}
     */
    public function toArray(): array
    {
        return [
            'name' => $this->name,
            'values' => $this->values,
            'blank' => $this->blank,
            'kind' => $this->kind()->value,
            'forms' => array_map(static fn(PossibleReading $one): array => $one->declared, $this->proposals()),
            'readings' => array_map(static fn(PossibleReading $one): array => $one->toArray(), $this->readings()),
            'evidence' => $this->evidence(),
            'distinct' => $this->counted->distinct->count(),
            'distinct_is_exact' => $this->counted->distinct->isExact(),
            'lengths' => $this->shortest === null ? null : [$this->shortest, $this->longest],
            'bytes' => $this->fewestBytes === null ? null : [$this->fewestBytes, $this->mostBytes],
            'range' => $this->range(),
            'sum' => $this->kind() === Kind::Number && $this->readable['number'] > 0 ? (string) $this->sum->total() : null,
            'invisible' => $this->invisible,
            'line_ends' => $this->lineEnds,
            'blank_tokens' => CountedValues::most($this->tokens),
            'most_frequent' => $this->counted->mostFrequent(),
            'shapes' => $this->counted->shapes(),
            'sample' => $this->counted->sample,
        ];
    }

    /** @return array{string, string}|null the least and the greatest value, as the kind orders them */
    private function range(): ?array
    {
        $kind = $this->kind()->value;
        $forms = $this->proposals();
        // Of several forms that fit, none orders the values.
        $range = count($forms) === 1 ? $forms[0]->range : null;
        $written = $forms === [] ? $this->ranges->of($kind) : null;

        return $range ?? ($written === null ? null : [ValueShape::shortened($written[0]), ValueShape::shortened($written[1])]);
    }
}
