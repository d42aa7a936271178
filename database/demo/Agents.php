<?php

declare(strict_types=1);

namespace Database\Demo;

use NineTally\Core\Plan\Plan;

/**
 * Those through whom licences are let, by number: licences refer to them. One was lost in the move, one was never there, and nobody has
 * let anything through three of them.
 */
final readonly class Agents
{
    public const NAME = 'Agents';

    /** As licences have them. */
    public const IN_USE = 88;

    private const ALL = 91;

    private const LOST = 17;

    private const NEVER_THERE = 41;

    /** What licences demand of their agents, as plans are written. */
    public const RULE = [
        'in' => self::NAME,
        'columns' => [['source' => 'agent', 'target' => 'agent']],
        'by' => [['source' => 'agent_no', 'target' => 'number']],
    ];

    /** @return array{source: list<string>, target: list<string>} paths */
    public static function write(string $folder): array
    {
        $paths = [];
        foreach (['source' => ['agent_no', 'name'], 'target' => ['number', 'name']] as $side => $header) {
            $lines = implode(',', $header)."\n";
            foreach (self::numbers($side) as $number) {
                $lines .= "{$number},".Wherrymoor::holder((int) $number * 7)." & Co\n";
            }
            $paths[$side] = ["{$folder}/agents_{$side}.csv"];
            file_put_contents($paths[$side][0], $lines);
        }

        return $paths;
    }

    /** @return array<string, mixed> the plan that compares both sides, as plans are written */
    public static function plan(): array
    {
        return [
            'formatVersion' => Plan::FORMAT_VERSION,
            'key' => [['source' => 'agent_no', 'target' => 'number']],
            'columnPairs' => [['id' => 'pair-a6e975000001', 'source' => 'name', 'target' => 'name']],
            'leftOut' => ['source' => [], 'target' => []],
        ];
    }

    /**
     * @param  array{source: array<int, array<string, string>>, target: array<int, array<string, string>>}  $licences  as they were made
     * @return array<string, array{values: int, rows: int}> what of their agents has no record, by what it is
     */
    public static function truth(array $licences): array
    {
        $used = array_map(static fn(array $rows): array => array_count_values(array_column($rows, 'agent')), $licences);
        $truth = array_fill_keys(['lost', 'inherited', 'own', 'untold', 'source'], ['values' => 0, 'rows' => 0]);
        foreach ($used as $side => $agents) {
            foreach ($agents as $agent => $rows) {
                if ($agent === '' || in_array((string) $agent, self::numbers($side), true)) {
                    continue;
                }
                $kind = match (true) {
                    $side === 'source' => 'source',
                    in_array((string) $agent, self::numbers('source'), true) => 'lost',
                    isset($used['source'][$agent]) => 'inherited',
                    default => 'own',
                };
                $truth[$kind] = ['values' => $truth[$kind]['values'] + 1, 'rows' => $truth[$kind]['rows'] + $rows];
            }
        }

        return $truth;
    }

    /** @return list<string> that a side has */
    private static function numbers(string $side): array
    {
        $absent = $side === 'source' ? [self::NEVER_THERE] : [self::NEVER_THERE, self::LOST];

        return array_map(
            static fn(int $number): string => sprintf('%04d', $number),
            array_values(array_diff(range(0, self::ALL - 1), $absent)),
        );
    }
}
