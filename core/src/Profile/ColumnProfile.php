<?php

declare(strict_types=1);

namespace NineTally\Core\Profile;

use Brick\Math\BigDecimal;
use NineTally\Core\Value\DeclaredInWords;
use NineTally\Core\Value\DeclaredReading;
use NineTally\Core\Value\Kind;
use NineTally\Core\Value\Reading;

/**
 * What one column holds, seen value by value.
 *
 * @phpstan-import-type Declared from DeclaredReading
 * @phpstan-import-type ReadingDocument from PossibleReading
 */
final class ColumnProfile
{
    private const MEMO = 4_096;

    /** What systems write for want of a value; no date has a day or month zero. */
    private const BLANK_TOKENS = [
        'null', 'nil', 'none', 'n/a', 'na', '-', '--', '?', '.', 'unknown', 'tbc', '(null)', '00.00.0000', '0000-00-00', '00/00/0000',
        '1900-01-01', '9999-12-31',
    ];

    private const INVISIBLE = '/(?![\t\n\r\x{85}])[\p{Cc}\p{Cf}]|\x{A0}/u';

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

    private ?BigDecimal $sum = null;

    /** @var array<string, int> token => how often */
    private array $tokens = [];

    private readonly CountedValues $counted;

    private readonly ValueRange $ranges;

    private readonly Reading $identifiers;

    private readonly Reading $moments;

    private readonly Reading $yesNo;

    private readonly ColumnForms $forms;

    /** @var array<string, ValueFacts> of values that were seen lately */
    private array $memo = [];

    public function __construct(public readonly string $name, DistinctBudget $budget = new DistinctBudget)
    {
        $this->ranges = new ValueRange;
        $this->counted = new CountedValues($budget);
        $this->identifiers = new Reading;
        $this->moments = new Reading(Kind::DateTime);
        $this->yesNo = new Reading(Kind::YesNo);
        $this->forms = new ColumnForms;
    }

    public function see(string $value): void
    {
        $this->values++;
        if ($value === '') {
            $this->blank++;

            return;
        }
        $facts = $this->memo[$value] ?? $this->remembered($value);
        $this->shortest = min($facts->length, $this->shortest ?? $facts->length);
        $this->longest = max($facts->length, $this->longest);
        $bytes = strlen($value);
        $this->fewestBytes = min($bytes, $this->fewestBytes ?? $bytes);
        $this->mostBytes = max($bytes, $this->mostBytes);
        $this->lineEnds += $facts->hasLineEnd ? 1 : 0;
        $this->invisible += $facts->hasInvisible ? 1 : 0;
        if ($facts->isToken) {
            $this->tokens[$value] = ($this->tokens[$value] ?? 0) + 1;
        }
        foreach ($facts->read as $kind => $read) {
            $this->readable[$kind]++;
            $this->ranges->widen($kind, $value, $read);
        }
        if (isset($facts->read['number']) && $facts->read['number'] instanceof BigDecimal) {
            $this->sum = $this->sum?->plus($facts->read['number']) ?? $facts->read['number'];
        }
        $this->counted->see($value, $facts->shape);
    }

    private function remembered(string $value): ValueFacts
    {
        $facts = $this->facts($value);
        if (! $facts->isToken) {
            $this->forms->see($value, isset($facts->read['number']), isset($facts->read['date-time']));
        }
        if (ValueShape::shortened($value) === $value) {
            if (count($this->memo) === self::MEMO) {
                $this->memo = [];
            }
            $this->memo[$value] = $facts;
        }

        return $facts;
    }

    private function facts(string $value): ValueFacts
    {
        $read = ['text' => $value];
        // Leading zeros are how identifiers look: a column of them is no column of numbers.
        $number = $this->identifiers->number($value)?->toBigDecimal();
        if ($number !== null) {
            $read['number'] = $number;
        }
        $moment = $this->moments->moment($value);
        if ($moment !== null) {
            $read['date-time'] = $moment->secondsSinceEpoch();
            if ($moment->isDay()) {
                $read['date'] = $moment->secondsSinceEpoch();
            }
        }
        $yes = $this->yesNo->yesOrNo($value);
        if ($yes !== null) {
            $read['yes-no'] = $yes ? 1 : 0;
        }

        return new ValueFacts(
            mb_strlen($value),
            strpbrk($value, "\r\n") !== false,
            self::hasInvisible($value),
            strlen($value) <= 12 && in_array(strtolower($value), self::BLANK_TOKENS, true) || trim($value) === '',
            $read,
            ValueShape::of($value),
        );
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
            'sum' => $this->kind() === Kind::Number && $this->sum !== null ? (string) $this->sum : null,
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

    public static function hasInvisible(string $value): bool
    {
        return preg_match(self::INVISIBLE, $value) === 1;
    }
}
