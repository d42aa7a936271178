<?php

declare(strict_types=1);

namespace Database\Demo;

use NineTally\Core\Plan\Plan;

/** Files and plan of a dataset whose rows are made one by one, because it has a story of its own. */
final readonly class HandMade
{
    /**
     * @param  list<string>  $names
     * @param  array<int, list<string>>  $rows
     * @return list<string> the path
     */
    public static function file(string $path, array $names, array $rows): array
    {
        file_put_contents($path, implode('', array_map(static fn(array $row): string => implode(',', $row)."\n", [$names, ...$rows])));

        return [$path];
    }

    /**
     * @param  list<array{source: string, target: string, forgives?: list<string>}>  $key
     * @param  list<array{string, string}>  $pairs  source and target column
     * @param  list<string>  $leftOut  columns of the source
     * @return array<string, mixed> as plans are written
     */
    public static function plan(string $id, array $key, array $pairs, array $leftOut = []): array
    {
        return [
            'formatVersion' => Plan::FORMAT_VERSION,
            'key' => $key,
            'columnPairs' => array_map(
                static fn(array $pair, int $place): array => [
                    'id' => sprintf('pair-%s%06d', $id, $place + 1),
                    'source' => $pair[0],
                    'target' => $pair[1],
                ],
                $pairs,
                array_keys($pairs),
            ),
            'leftOut' => ['source' => $leftOut, 'target' => []],
        ];
    }
}
