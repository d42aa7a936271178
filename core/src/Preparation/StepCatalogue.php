<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation;

use NineTally\Core\Preparation\Conditions\ConditionDocument;
use NineTally\Core\Value\DeclaredReading;
use NineTally\Core\Value\Kind;

/**
 * Makes steps of what the plan says of them; the schema has been held against it before. A new kind of step is a class, an
 * entry here and a part of the schema.
 *
 * @phpstan-import-type Declared from DeclaredReading
 *
 * @phpstan-type StepDocument array{id: string, kind: string, off?: bool, reason?: string, answersFor?: string, columns?: list<string>,
 *     column?: string, into?: string|list<string>, names?: list<array{from: string, to: string}>, condition?: array<string, mixed>,
 *     actions?: list<array{action: string, find?: string, with?: string, length?: int}>, reading?: Declared, value?: string, keep?: bool,
 *     separator?: string, lengths?: list<int>, pattern?: string, with?: string, skipBlanks?: bool, formula?: string, takesBlanks?: bool,
 *     namesInto?: string, valuesInto?: string, keepBlanks?: bool, namesFrom?: string, valuesFrom?: string,
 *     entries?: list<array{source: string, target: string}>, blankOthers?: bool, reference?: string, on?: list<array{column: string,
 *     reference: string}>, take?: list<array{reference: string, into: string}>, from?: string, until?: string, within?: list<mixed>,
 *     order?: array{column: string, kind?: string, highestFirst?: bool}, rank?: bool, forgives?: list<string>,
 *     several?: 'stop'|'first'|'last'|'blank', without?: 'keep'|'leave-out'|'list', by?: list<string>, totals?: list<array{total: string,
 *     column?: string, into: string}>, holds?: list<array{column: string, total: string}>, which?: string,
 *     outcome?: string}
 */
final readonly class StepCatalogue
{
    /**
     * @param  StepDocument  $step
     *
     * @throws UnusableStep when a pattern or a value of it cannot be used
     */
    public static function make(array $step): Step
    {
        /** @var list<string> $columns */
        $columns = $step['columns'] ?? [];
        /** @var list<string> $into */
        $into = (array) ($step['into'] ?? []);
        $name = $into[0] ?? '';
        $order = isset($step['order'])
            ? new SortKey($step['order']['column'], Kind::from($step['order']['kind'] ?? 'text'), $step['order']['highestFirst'] ?? false)
            : null;

        return match ($step['kind']) {
            'keep-columns' => new Steps\KeepColumns($columns),
            'leave-out-columns' => new Steps\LeaveOutColumns($columns),
            'move-columns' => new Steps\MoveColumns($columns),
            'rename-columns' => new Steps\RenameColumns($step['names'] ?? []),
            'keep-rows' => new Steps\ChooseRows(true, ConditionDocument::read($step['condition'] ?? [])),
            'leave-out-rows' => new Steps\ChooseRows(false, ConditionDocument::read($step['condition'] ?? [])),
            'leave-out-blank-rows' => new Steps\LeaveOutBlankRows,
            'tidy-text' => new Steps\TidyText($columns, $step['actions'] ?? []),
            'read-number' => self::reading(Kind::Number, $columns, $step['reading'] ?? []),
            'read-date' => self::reading(Kind::Date, $columns, $step['reading'] ?? []),
            'read-yes-no' => self::reading(Kind::YesNo, $columns, $step['reading'] ?? []),
            'fill-blanks' => new Steps\FillBlanks($columns, $step['value'] ?? null),
            'split-column' => new Steps\SplitColumn(
                $step['column'] ?? '',
                $into,
                $step['keep'] ?? false,
                $step['separator'] ?? '',
                $step['lengths'] ?? [],
                $step['pattern'] ?? '',
            ),
            'join-columns' => new Steps\JoinColumns(
                $columns === [] ? [''] : $columns,
                $step['with'] ?? '',
                $name,
                $step['keep'] ?? false,
                $step['skipBlanks'] ?? false,
            ),
            'compute-column' => new Steps\ComputeColumn($name, $step['formula'] ?? '', $step['takesBlanks'] ?? false),
            'columns-into-rows' => new Steps\ColumnsIntoRows(
                $columns === [] ? [''] : $columns,
                $step['namesInto'] ?? '',
                $step['valuesInto'] ?? '',
                $step['keepBlanks'] ?? true,
            ),
            'rows-into-columns' => new Steps\RowsIntoColumns(
                $step['namesFrom'] ?? '',
                $step['valuesFrom'] ?? '',
                $into === [] ? [''] : $into,
            ),
            'crosswalk' => new Steps\Crosswalk(
                $step['column'] ?? '',
                array_column($step['entries'] ?? [], 'target', 'source'),
                $step['blankOthers'] ?? false,
            ),
            'look-up' => new Steps\LookUp(
                $step['reference'] ?? '',
                self::some($step['on'] ?? []),
                self::some($step['take'] ?? []),
                $step['forgives'] ?? [],
                $step['several'] ?? 'stop',
                $step['outcome'] ?? null,
            ),
            'as-matched' => new Steps\AsMatched(
                $step['reference'] ?? '',
                self::some($step['on'] ?? []),
                self::some($step['take'] ?? []),
            ),
            'look-up-band' => new Steps\LookUpBand(
                $step['reference'] ?? '',
                $step['column'] ?? '',
                $step['from'] ?? '',
                $step['until'] ?? null,
                $step['on'] ?? [],
                self::some($step['take'] ?? []),
                $step['forgives'] ?? [],
            ),
            'bring-in-records' => new Steps\BringInRecords(
                $step['reference'] ?? '',
                self::some($step['on'] ?? []),
                self::some($step['take'] ?? []),
                $step['forgives'] ?? [],
                $step['without'] ?? 'keep',
            ),
            'number-rows' => new Steps\NumberRows($name, $step['by'] ?? [], $order, $step['rank'] ?? false),
            'group-rows' => new Steps\GroupRows($step['by'] ?? [], $step['totals'] ?? []),
            'survivors' => self::survivors($step),
            'keep-one-row' => new Steps\KeepOneRow($step['by'] ?? [], $order, ($step['which'] ?? 'first') === 'last'),
            default => throw UnusableStep::because(sprintf('There is no step of the kind "%s".', $step['kind'])),
        };
    }

    /** @param StepDocument $step */
    private static function survivors(array $step): Steps\Survivors
    {
        $reference = $step['reference'] ?? '';
        $keys = $reference === ''
            ? Steps\SurvivorKeys::ofEntries($step['column'] ?? '', $step['entries'] ?? [], $step['forgives'] ?? [])
            : Steps\SurvivorKeys::ofReference($reference, $step['on'] ?? [], $step['take'] ?? [], $step['forgives'] ?? []);

        return new Steps\Survivors($keys, $step['holds'] ?? []);
    }

    /**
     * @param  list<string>  $columns
     * @param  Declared  $declared
     */
    private static function reading(Kind $kind, array $columns, array $declared): Steps\ReadValues
    {
        $forms = $declared['dateForms'] ?? [];
        $words = array_filter([
            ($declared['decimalMark'] ?? '.') === ',' ? 'decimal comma' : '',
            $forms === [] ? '' : 'written '.implode(' or ', $forms),
        ]);

        return new Steps\ReadValues($columns, $kind, $declared, implode(', ', $words));
    }

    /**
     * @template T
     *
     * @param  list<T>  $parts
     * @return non-empty-list<T>
     */
    private static function some(array $parts): array
    {
        return $parts === [] ? throw UnusableStep::because('The step names no column.') : $parts;
    }
}
