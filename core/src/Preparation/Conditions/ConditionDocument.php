<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation\Conditions;

/**
 * Conditions as the plan writes them; the schema has been held against them before.
 *
 * @phpstan-type CellDocument array{column: string, test: string, value?: string, parameter?: string, values?: list<string>, until?: string}
 */
final readonly class ConditionDocument
{
    /** @param array<string, mixed> $document */
    public static function read(array $document): Condition
    {
        foreach (['all' => true, 'any' => false] as $name => $all) {
            if (isset($document[$name])) {
                /** @var non-empty-list<array<string, mixed>> $conditions */
                $conditions = $document[$name];

                return new CompoundCondition($all, array_map(self::read(...), $conditions));
            }
        }
        /** @var CellDocument $document */
        return new CellCondition(
            $document['column'],
            Test::from($document['test']),
            $document['parameter'] ?? ($document['value'] ?? ''),
            isset($document['parameter']),
            $document['values'] ?? [],
            $document['until'] ?? null,
        );
    }
}
