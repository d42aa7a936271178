<?php

declare(strict_types=1);

namespace App\Adapters\Sources;

use NineTally\Core\Intake\UnreadableFile;

/** The columns that a query gives, each under a name of its own. */
final readonly class NamedColumns
{
    /**
     * @param  \PDOStatement  $query  that was executed
     * @return list<string>
     *
     * @throws UnreadableFile when two have one name
     */
    public static function of(\PDOStatement $query, string $source): array
    {
        $names = array_map(
            static fn(int $place): string => ($query->getColumnMeta($place) ?: [])['name'] ?? '',
            range(0, max(0, $query->columnCount() - 1)),
        );
        $twice = array_keys(array_filter(array_count_values($names), static fn(int $times): bool => $times > 1));
        if ($twice !== []) {
            throw UnreadableFile::queryFails(
                $source,
                sprintf('two of its columns are called "%s"; give one another name with AS', $twice[0]),
            );
        }

        return $names;
    }
}
