<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation;

use NineTally\Core\Preparation\Steps\AsMatched;

/**
 * Follows sensitive values through the steps of a side: what is computed, renamed, divided, joined, turned or looked up from one is
 * sensitive too; and a delivered column that a flagged one is made of was sensitive from the beginning.
 *
 * A step is taken to put what it reads into whatever it makes: a column too many is masked rather than one too few.
 *
 * @phpstan-import-type StepDocument from StepCatalogue
 */
final readonly class SensitiveColumns
{
    /**
     * @param  list<string>  $columns  as delivered
     * @param  list<string>  $flagged  by the name that a column has anywhere on the way
     * @param  (\Closure(string): list<string>)|null  $ofReference  names of the sensitive columns of a reference
     * @return array<int, list<string>> as delivered (0), and behind each working step by its number: the names that are sensitive there
     */
    public static function through(Preparation $preparation, array $columns, array $flagged, ?\Closure $ofReference = null): array
    {
        $ofReference ??= static fn(string $reference): array => [];
        $stages = self::stages($preparation, $columns);
        $isSensitive = array_flip(array_intersect($columns, $flagged));
        $unmet = array_diff($flagged, $columns);
        foreach ($unmet === [] ? [] : $columns as $column) {
            foreach (self::forward($preparation, $stages, [$column], $ofReference) as $names) {
                if (array_intersect($names, $unmet) !== []) {
                    $isSensitive[$column] = 0;
                }
            }
        }

        return self::forward($preparation, $stages, array_map(strval(...), array_keys($isSensitive)), $ofReference, $flagged);
    }

    /**
     * @param  array<int, list<string>>  $stages
     * @param  list<string>  $sensitive
     * @param  \Closure(string): list<string>  $ofReference
     * @param  list<string>  $flagged
     * @return array<int, list<string>>
     */
    private static function forward(
        Preparation $preparation,
        array $stages,
        array $sensitive,
        \Closure $ofReference,
        array $flagged = [],
    ): array {
        $names = [0 => $sensitive];
        foreach ($preparation->working() as $number => $step) {
            if (! isset($stages[$number])) {
                break;
            }
            $sensitive = self::behind($step, $sensitive, $ofReference);
            $sensitive = $names[$number] = array_values(array_intersect($stages[$number], [...$sensitive, ...$flagged]));
        }

        return $names;
    }

    /**
     * @param  list<string>  $columns
     * @return array<int, list<string>> the columns behind each working step, up to one that cannot be used
     */
    private static function stages(Preparation $preparation, array $columns): array
    {
        $stages = [];
        foreach ($preparation->working() as $number => $document) {
            try {
                $stages[$number] = $columns = StepCatalogue::make($document)->columns($columns);
            } catch (UnusableStep) {
                break;
            }
        }

        return $stages;
    }

    /**
     * @param  StepDocument  $step
     * @param  list<string>  $sensitive
     * @param  \Closure(string): list<string>  $ofReference
     * @return list<string>
     */
    private static function behind(array $step, array $sensitive, \Closure $ofReference): array
    {
        $reads = static fn(string ...$names): bool => array_intersect($names, $sensitive) !== [];
        $into = array_map(strval(...), (array) ($step['into'] ?? []));

        return [...$sensitive, ...match ($step['kind']) {
            'rename-columns' => self::renamed($step['names'] ?? [], $sensitive),
            'split-column' => $reads($step['column'] ?? '') ? $into : [],
            'join-columns' => $reads(...$step['columns'] ?? []) ? $into : [],
            'compute-column' => self::isSaidIn($step['formula'] ?? '', $sensitive) ? $into : [],
            'columns-into-rows' => $reads(...$step['columns'] ?? []) ? [$step['valuesInto'] ?? ''] : [],
            'rows-into-columns' => $reads($step['namesFrom'] ?? '', $step['valuesFrom'] ?? '') ? $into : [],
            'number-rows' => $reads($step['order']['column'] ?? '', ...$step['by'] ?? []) ? $into : [],
            'group-rows' => array_column(
                array_filter($step['totals'] ?? [], static fn(array $total): bool => $reads($total['column'] ?? '')),
                'into',
            ),
            'look-up', 'look-up-band', 'bring-in-records', 'as-matched', 'survivors' => self::lookedUp($step, $sensitive, $ofReference),
            default => [],
        }];
    }

    /**
     * @param  list<array{from: string, to: string}>  $names
     * @param  list<string>  $sensitive
     * @return list<string>
     */
    private static function renamed(array $names, array $sensitive): array
    {
        return array_column(array_filter($names, static fn(array $name): bool => in_array($name['from'], $sensitive, true)), 'to');
    }

    /**
     * @param  StepDocument  $step
     * @param  list<string>  $sensitive
     * @param  \Closure(string): list<string>  $ofReference
     * @return list<string>
     */
    private static function lookedUp(array $step, array $sensitive, \Closure $ofReference): array
    {
        $hidden = $ofReference(Preparation::referenceOf($step));
        $asked = json_encode(
            [$step['on'] ?? [], $step['column'] ?? '', $step['within'] ?? []],
            JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE,
        );
        $isAskedBySensitive = self::isSaidIn($asked, $sensitive);

        return [...$isAskedBySensitive ? [$step['outcome'] ?? ''] : [], ...array_column(
            array_filter(
                $step['take'] ?? [],
                static fn(array $taken): bool => $isAskedBySensitive || array_intersect(
                    [$taken['reference'], AsMatched::targetColumn($taken['reference'])],
                    $hidden,
                ) !== [],
            ),
            'into',
        )];
    }

    /** @param list<string> $names */
    private static function isSaidIn(string $text, array $names): bool
    {
        foreach ($names as $name) {
            if ($name !== '' && str_contains($text, $name)) {
                return true;
            }
        }

        return false;
    }
}
