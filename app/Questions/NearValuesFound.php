<?php

declare(strict_types=1);

namespace App\Questions;

use NineTally\Core\Intake\Reader;
use NineTally\Core\Likeness\ColumnSample;
use NineTally\Core\Likeness\DistinctValues;
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
 * @phpstan-type Found array{kind: string, alike: list<array{source: string, target: string, kind: string}>,
 *     all: array{source: int, target: int}, beyond: bool, same: int, alone: int, values: list<NearValue>}
 */
final readonly class NearValuesFound implements Question
{
    /** Values that are told of, those in most rows first. */
    private const TOLD = 1_000;

    /** Values of a side by which the kind of likeness is told. */
    private const SAMPLE = 2_000;

    /** How much the column counts for which values are sought, where others may be alike beside it. */
    private const WEIGHT = 2;

    private const ROWS_BETWEEN_REPORTS = 5_000;

    /**
     * @param  array{source: string, target: string}  $pair  prepared columns
     * @param  string|null  $kind  of likeness; null for what fits the values
     * @param  array<string, string>  $equivalents  word => word that stands for it
     * @param  ValuesOfReference|null  $reference  what the values of the source are held against; null: those of the target
     * @param  list<array{source: string, target: string}>  $equal  columns that must have a value in common where values are alike
     * @param  list<array{source: string, target: string}>  $alike  columns in which what stands beside alike values may be alike
     */
    public function __construct(
        private BothSides $sides,
        private array $pair,
        private ?string $kind,
        private array $equivalents,
        private ?ValuesOfReference $reference = null,
        private array $equal = [],
        private array $alike = [],
    ) {}

    public function kind(): string
    {
        return 'near-values';
    }

    public function about(): array
    {
        return [
            $this->sides->about(),
            $this->pair,
            $this->kind,
            $this->equivalents,
            $this->reference?->about(),
            $this->equal,
            $this->alike,
        ];
    }

    /** @return Found */
    public function answer(QuestionContext $material, \Closure $onProgress): array
    {
        $readers = Sides::each(fn(Side $side): Reader => $side === Side::Target && $this->reference !== null
            ? $this->reference->reader($material->sides)
            : $this->sides->reader($material, $side));
        $total = $readers->source->bytes() + $readers->target->bytes();
        $before = 0;
        $values = [];
        foreach (Side::cases() as $side) {
            $values[$side->value] = $this->values(
                $readers->of($side),
                $side,
                static fn(int $bytes) => $onProgress($before + $bytes, $total),
            );
            $before += $readers->of($side)->bytes();
        }
        $both = new Sides($values['source'], $values['target']);
        $kinds = $this->likeness($both);
        $columns = array_map(fn(array $pair, LikenessKind $kind, int $at): LikenessColumn => new LikenessColumn(
            $kind,
            $at === 0 && $this->alike !== [] ? self::WEIGHT : 1,
            $this->rules(Side::Source)->reading($pair['source'], $kind->kind()),
            $this->rules(Side::Target)->reading($pair['target'], $kind->kind()),
        ), [$this->pair, ...$this->alike], $kinds, array_keys($kinds));
        $near = NearValues::of($both->source, $both->target, $columns, new FoldedText($this->equivalents), $this->equal !== []);
        $alike = array_values(array_filter($near->values, static fn(array $value): bool => $value['candidates'] !== []));

        return [
            'kind' => $kinds[0]->value,
            'alike' => array_map(
                static fn(array $pair, LikenessKind $kind): array => [...$pair, 'kind' => $kind->value],
                $this->alike,
                array_slice($kinds, 1),
            ),
            'all' => ['source' => count($both->source->rows()), 'target' => count($both->target->rows())],
            'beyond' => $both->source->isBeyond() || $both->target->isBeyond(),
            'same' => $near->same,
            'alone' => count($near->values) - count($alike),
            'values' => array_slice($alike, 0, self::TOLD),
        ];
    }

    /** @param \Closure(int): void $onBytes */
    private function values(Reader $reader, Side $side, \Closure $onBytes): DistinctValues
    {
        $place = $reader->columns()->positionOf($this->pair[$side->value]);
        $reading = $this->rules($side)->reading($this->pair[$side->value], Kind::Text);
        [$equal, $alike] = array_map(
            static fn(array $pairs): array => $reader->columns()->positionsOf(array_column($pairs, $side->value)),
            [$this->equal, $this->alike],
        );
        $values = new DistinctValues;
        $bytes = $rows = 0;
        foreach ($reader->records(static function (int $read) use (&$bytes): void {
            $bytes = $read;
        }) as $row) {
            ++$rows % self::ROWS_BETWEEN_REPORTS === 0 && $onBytes($bytes);
            if ($row instanceof Row && ! $reading->isBlank($row->cells[$place])) {
                $cellOf = static fn(int $one): string => $row->cells[$one];
                $values->see($row->cells[$place], array_map($cellOf, $equal), array_map($cellOf, $alike));
            }
        }

        return $values;
    }

    private function rules(Side $side): SideRules
    {
        return $side === Side::Target && $this->reference !== null ? $this->reference->rules() : $this->sides->rules($side);
    }

    /**
     * @param  Sides<DistinctValues>  $values
     * @return non-empty-list<LikenessKind> of the column, and of those that may be alike beside it
     */
    private function likeness(Sides $values): array
    {
        $some = Sides::each(static fn(Side $side): array => array_map(
            strval(...),
            array_slice(array_keys($values->of($side)->rows()), 0, self::SAMPLE),
        ));
        $kinds = [LikenessKind::tryFrom($this->kind ?? '') ?? self::kindOf($this->pair, $some)];
        foreach ($this->alike as $at => $pair) {
            $kinds[] = self::kindOf($pair, Sides::each(static fn(Side $side): array => array_map(
                static fn(string $value): string => $values->of($side)->beside($value)[$at] ?? '',
                $some->of($side),
            )));
        }

        return $kinds;
    }

    /**
     * @param  array{source: string, target: string}  $pair
     * @param  Sides<list<string>>  $values
     */
    private static function kindOf(array $pair, Sides $values): LikenessKind
    {
        $proposed = LikenessProposal::of([
            new ColumnSample($pair['source'], $pair['target'], Kind::Text, false, $values->source, $values->target, null),
        ]);

        return $proposed[0]['kind'] ?? LikenessKind::Name;
    }
}
