<?php

declare(strict_types=1);

namespace App\Questions;

use NineTally\Core\Intake\Reader;
use NineTally\Core\Likeness\ColumnSample;
use NineTally\Core\Likeness\FoldedText;
use NineTally\Core\Likeness\LikenessColumn;
use NineTally\Core\Likeness\LikenessKind;
use NineTally\Core\Likeness\LikenessProposal;
use NineTally\Core\Likeness\NearValues;
use NineTally\Core\Plan\SideRules;
use NineTally\Core\Row\Row;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;
use NineTally\Core\Value\Kind;

/**
 * Which distinct values of a column of the source are most like which of the target, or of a reference.
 *
 * @phpstan-import-type NearValue from NearValues
 *
 * @phpstan-type Found array{kind: string, all: array{source: int, target: int}, beyond: bool, same: int, alone: int,
 *     values: list<NearValue>}
 */
final readonly class NearValuesFound implements Question
{
    /** Distinct values of a side that are looked at: what has more is no list of values. */
    private const MOST = 50_000;

    /** Values that are told of, those in most rows first. */
    private const TOLD = 1_000;

    /** Values of a side by which the kind of likeness is told. */
    private const SAMPLE = 2_000;

    /** What is kept of what stands beside a value. */
    private const SHARED = 100;

    private const ROWS_BETWEEN_REPORTS = 5_000;

    /**
     * @param  array{source: string, target: string}  $pair  prepared columns
     * @param  string|null  $kind  of likeness; null for what fits the values
     * @param  array<string, string>  $equivalents  word => word that stands for it
     * @param  ValuesOfReference|null  $reference  what the values of the source are held against; null: those of the target
     * @param  list<array{source: string, target: string}>  $equal  columns that must have a value in common where values are alike
     */
    public function __construct(
        private BothSides $sides,
        private array $pair,
        private ?string $kind,
        private array $equivalents,
        private ?ValuesOfReference $reference = null,
        private array $equal = [],
    ) {}

    public function kind(): string
    {
        return 'near-values';
    }

    public function about(): array
    {
        return [$this->sides->about(), $this->pair, $this->kind, $this->equivalents, $this->reference?->about(), $this->equal];
    }

    /** @return Found */
    public function answer(QuestionContext $material, \Closure $onProgress): array
    {
        $readers = Sides::each(fn(Side $side): Reader => $side === Side::Target && $this->reference !== null
            ? $this->reference->reader($material->sides)
            : $this->sides->reader($material, $side));
        $total = $readers->source->bytes() + $readers->target->bytes();
        $values = $shared = [];
        $before = 0;
        $isBeyond = false;
        foreach (Side::cases() as $side) {
            [$values[$side->value], $shared[$side->value], $isCut] = $this->values(
                $readers->of($side),
                $side,
                static fn(int $bytes) => $onProgress($before + $bytes, $total),
            );
            $isBeyond = $isBeyond || $isCut;
            $before += $readers->of($side)->bytes();
        }
        $kind = $this->likeness($values['source'], $values['target']);
        $near = NearValues::of($values['source'], $values['target'], new LikenessColumn(
            $kind,
            1,
            $this->rules(Side::Source)->reading($this->pair['source'], $kind->kind()),
            $this->rules(Side::Target)->reading($this->pair['target'], $kind->kind()),
        ), new FoldedText($this->equivalents));
        $told = $this->equal === [] ? $near->values : array_map(
            static fn(array $value): array => [
                ...$value,
                'candidates' => self::inCommon($value['candidates'], $shared['source'][$value['value']] ?? [], $shared['target']),
            ],
            $near->values,
        );
        $alike = array_values(array_filter($told, static fn(array $value): bool => $value['candidates'] !== []));

        return [
            'kind' => $kind->value,
            'all' => ['source' => count($values['source']), 'target' => count($values['target'])],
            'beyond' => $isBeyond,
            'same' => $near->same,
            'alone' => count($near->values) - count($alike),
            'values' => array_slice($alike, 0, self::TOLD),
        ];
    }

    /**
     * @param  \Closure(int): void  $onBytes
     * @return array{array<array-key, int>, array<array-key, array<array-key, true>>, bool} rows by value, what each value has beside it in
     *     the columns that must be equal, and whether there are more values
     */
    private function values(Reader $reader, Side $side, \Closure $onBytes): array
    {
        $place = $reader->columns()->positionOf($this->pair[$side->value]);
        $reading = $this->rules($side)->reading($this->pair[$side->value], Kind::Text);
        $equal = $reader->columns()->positionsOf(array_column($this->equal, $side->value));
        $values = $shared = [];
        $isBeyond = false;
        $bytes = $rows = 0;
        foreach ($reader->records(static function (int $read) use (&$bytes): void {
            $bytes = $read;
        }) as $row) {
            ++$rows % self::ROWS_BETWEEN_REPORTS === 0 && $onBytes($bytes);
            if (! $row instanceof Row || $reading->isBlank($row->cells[$place])) {
                continue;
            }
            $value = $row->cells[$place];
            if (isset($values[$value]) || count($values) < self::MOST) {
                $values[$value] = ($values[$value] ?? 0) + 1;
                if ($equal !== [] && count($shared[$value] ?? []) < self::SHARED) {
                    $shared[$value][implode("\0", array_map(static fn(int $one): string => $row->cells[$one], $equal))] = true;
                }
            } else {
                $isBeyond = true;
            }
        }

        return [$values, $shared, $isBeyond];
    }

    /**
     * @template Candidate of array{value: string, ...}
     *
     * @param  list<Candidate>  $candidates
     * @param  array<array-key, true>  $beside  the value, in the columns that must be equal
     * @param  array<array-key, array<array-key, true>>  $others  the same of all values of the target
     * @return list<Candidate>
     */
    private static function inCommon(array $candidates, array $beside, array $others): array
    {
        return array_values(array_filter($candidates, static function (array $candidate) use ($beside, $others): bool {
            $there = $others[$candidate['value']] ?? [];

            // Of a value that stands beside very many, not all are known.
            return max(count($beside), count($there)) >= self::SHARED || array_intersect_key($beside, $there) !== [];
        }));
    }

    private function rules(Side $side): SideRules
    {
        return $side === Side::Target && $this->reference !== null ? $this->reference->rules() : $this->sides->rules($side);
    }

    /**
     * @param  array<array-key, int>  $source
     * @param  array<array-key, int>  $target
     */
    private function likeness(array $source, array $target): LikenessKind
    {
        $some = static fn(array $values): array => array_map(strval(...), array_slice(array_keys($values), 0, self::SAMPLE));
        $proposed = LikenessProposal::of([
            new ColumnSample($this->pair['source'], $this->pair['target'], Kind::Text, false, $some($source), $some($target), null),
        ]);

        return LikenessKind::tryFrom($this->kind ?? '') ?? $proposed[0]['kind'] ?? LikenessKind::Name;
    }
}
