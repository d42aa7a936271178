<?php

declare(strict_types=1);

namespace App\Actions\Review;

use Illuminate\Validation\ValidationException;
use NineTally\Core\Plan\Bridge;
use NineTally\Core\Plan\Bridges;
use NineTally\Core\Row\Side;

/**
 * Reads bridges from a table as the list of bridges is taken away: a column for each column of the key of both sides ("source holder",
 * "target holder"), and, where somebody has said it, which side is right. Other columns are passed over. Delimited by what the line of
 * names has most of: tab, semicolon or comma.
 */
final readonly class BridgesOfTable
{
    /** So many faults are told of. */
    private const TOLD = 5;

    /**
     * @param  list<array{source: string, target: string}>  $key
     * @return list<Bridge>
     *
     * @throws ValidationException when a line is no bridge, or two lines contradict each other; nothing is taken of the table then
     */
    public static function read(string $table, array $key): array
    {
        $lines = self::lines($table);
        $names = array_map(static fn(string $name): string => mb_strtolower(trim($name)), array_shift($lines) ?? []);
        $places = self::places($names, $key);
        $bridges = $meant = $faults = [];
        foreach ($lines as $number => $cells) {
            if (implode('', $cells) === '') {
                continue;
            }
            $bridge = new Bridge(
                array_map(static fn(int $place): string => $cells[$place] ?? '', $places['source']),
                array_map(static fn(int $place): string => $cells[$place] ?? '', $places['target']),
                Side::tryFrom(mb_strtolower(trim($cells[$places['right'] ?? -1] ?? ''))),
            );
            $fault = self::fault($bridge, $meant);
            if ($fault !== null) {
                $faults[] = 'Line '.($number + 2).": {$fault}";
            } else {
                $bridges[$bridge->identity()] ??= $bridge;
                foreach (self::bothWays($bridge) as [$side, $one, $other]) {
                    $meant[$side->value][implode("\0", $one)] = $other;
                }
            }
        }
        if ($faults !== []) {
            $more = count($faults) - self::TOLD;
            throw self::refused(implode(' ', array_slice($faults, 0, self::TOLD)).($more > 0 ? " And {$more} more lines." : ''));
        }
        if ($bridges === []) {
            throw self::refused('The table has no line below its names.');
        }

        return array_values($bridges);
    }

    /** @param array<array-key, array<array-key, list<string>>> $meant what each key of a side has been said to be, by its cells */
    private static function fault(Bridge $bridge, array $meant): ?string
    {
        foreach (self::bothWays($bridge) as [$side, $one, $other]) {
            if (implode('', $one) === '') {
                return "the {$side->value} key is blank. Fill it in, or take the line out.";
            }
            $known = $meant[$side->value][implode("\0", $one)] ?? $other;
            if ($known !== $other) {
                return sprintf(
                    'the %s key %s is joined to %s already. A key can be joined to one other.',
                    $side->value,
                    implode(', ', $one),
                    implode(', ', $known),
                );
            }
        }

        return $bridge->source === $bridge->target ? 'both keys are the same, and meet without a bridge. Take the line out.' : null;
    }

    /** @return list<array{Side, list<string>, list<string>}> each side with its key and the one that it is joined to */
    private static function bothWays(Bridge $bridge): array
    {
        return [[Side::Source, $bridge->source, $bridge->target], [Side::Target, $bridge->target, $bridge->source]];
    }

    /** @return list<list<string>> */
    private static function lines(string $table): array
    {
        $file = fopen('php://temp', 'w+b');
        if ($file === false) {
            throw new \RuntimeException('No room for the table.');
        }
        fwrite($file, str_starts_with($table, "\xEF\xBB\xBF") ? substr($table, 3) : $table);
        rewind($file);
        $head = strtok($table, "\r\n");
        $counts = array_map(static fn(string $mark): int => substr_count((string) $head, $mark), ["\t" => "\t", ';' => ';', ',' => ',']);
        arsort($counts);
        $lines = [];
        while (($cells = fgetcsv($file, null, (string) array_key_first($counts), '"', '')) !== false) {
            $lines[] = array_map(strval(...), $cells);
        }
        fclose($file);

        return $lines;
    }

    /**
     * @param  list<string>  $names  in small letters
     * @param  list<array{source: string, target: string}>  $key
     * @return array{source: list<int>, target: list<int>, right: int|null}
     */
    private static function places(array $names, array $key): array
    {
        $places = ['source' => [], 'target' => []];
        $lacks = [];
        foreach (['source', 'target'] as $side) {
            foreach ($key as $column) {
                $name = mb_strtolower("{$side} {$column[$side]}");
                // Where the key has one column, its side is enough.
                $place = array_search($name, $names, true);
                $place = $place === false && count($key) === 1 ? array_search($side, $names, true) : $place;
                if (is_int($place)) {
                    $places[$side][] = $place;
                } else {
                    $lacks[] = "\"{$side} {$column[$side]}\"";
                }
            }
        }
        if ($lacks !== []) {
            throw self::refused(
                'The first line must name the columns of the key on both sides. It lacks '.implode(', ', $lacks).
                    '. The list as it is downloaded here has the names as they must be.',
            );
        }
        $right = array_search('right', $names, true);

        return [...$places, 'right' => is_int($right) ? $right : null];
    }

    private static function refused(string $why): ValidationException
    {
        return ValidationException::withMessages(['table' => $why]);
    }
}
