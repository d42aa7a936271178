<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation;

use NineTally\Core\Value\DeclaredForms;

/**
 * Which columns steps have written themselves, and so in the one form that needs no declaration.
 *
 * @phpstan-import-type StepDocument from StepCatalogue
 *
 * @phpstan-type Written array<string, array{forms: list<string>, isRead: bool}>
 */
final readonly class WrittenColumns
{
    private const ALL = [...DeclaredForms::NUMBERS, ...DeclaredForms::DATES, ...DeclaredForms::WORDS];

    /**
     * @param  StepDocument  $step
     * @param  Written  $before
     * @return Written
     */
    public static function after(array $step, array $before): array
    {
        return match ($step['kind']) {
            'read-number' => self::with($before, $step['columns'] ?? [], DeclaredForms::NUMBERS, true),
            'read-date' => self::with($before, $step['columns'] ?? [], DeclaredForms::DATES, true),
            'read-yes-no' => self::with($before, $step['columns'] ?? [], DeclaredForms::WORDS, true),
            'compute-column', 'number-rows' => self::with($before, self::into($step), self::ALL, false),
            'group-rows' => self::with(
                $before,
                array_column(
                    array_filter(
                        $step['totals'] ?? [],
                        static fn(array $total): bool => ! in_array($total['total'], ['first', 'last', 'longest'], true),
                    ),
                    'into',
                ),
                DeclaredForms::NUMBERS,
                false,
            ),
            'rename-columns' => self::renamed($before, $step['names'] ?? []),
            default => $before,
        };
    }

    /**
     * @param  StepDocument  $step
     * @return list<string>
     */
    private static function into(array $step): array
    {
        return (array) ($step['into'] ?? []);
    }

    /**
     * @param  Written  $before
     * @param  list<string>  $columns
     * @param  list<string>  $forms
     * @return Written
     */
    private static function with(array $before, array $columns, array $forms, bool $isRead): array
    {
        foreach ($columns as $column) {
            $was = $before[$column] ?? ['forms' => [], 'isRead' => false];
            $before[$column] = [
                'forms' => array_values(array_unique([...$was['forms'], ...$forms])),
                'isRead' => $isRead || $was['isRead'],
            ];
        }

        return $before;
    }

    /**
     * @param  Written  $before
     * @param  list<array{from: string, to: string}>  $names
     * @return Written
     */
    private static function renamed(array $before, array $names): array
    {
        $after = array_diff_key($before, array_flip(array_column($names, 'from')));
        foreach ($names as ['from' => $from, 'to' => $to]) {
            if (isset($before[$from])) {
                $after[$to] = $before[$from];
            }
        }

        return $after;
    }
}
