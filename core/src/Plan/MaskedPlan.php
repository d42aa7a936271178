<?php

declare(strict_types=1);

namespace NineTally\Core\Plan;

use NineTally\Core\Repeats\ChosenRow;

/**
 * A plan as it is shown to somebody who may not see the values of some columns: what steps, crosswalks, bridges and demands say of their
 * values is replaced. A step that names such a column is masked in all that it says of values, for its parts cannot be told apart.
 *
 * @phpstan-import-type ChosenDocument from ChosenRow
 */
final readonly class MaskedPlan
{
    /** What stands for a value. */
    public const MASK = '(masked)';

    /** Members of a step that hold values, or are made of them. */
    private const OF_VALUES = ['value', 'values', 'until', 'entries', 'find', 'with', 'pattern', 'reason'];

    /**
     * @param array{source: list<string>, target: list<string>, references: array<string, list<string>>} $hidden names that columns have
     *     anywhere on the way
     * @param \Closure(string): string $mask what stands for a value
     */
    private function __construct(private array $hidden, private \Closure $mask) {}

    /**
     * @param  array<string, mixed>  $document  as the schema of plans has it
     * @param  array{source: list<string>, target: list<string>, references: array<string, list<string>>}  $hidden  names that columns have
     *     anywhere on the way
     * @param  \Closure(string): string  $mask  what stands for a value: different for different values, or two entries of a crosswalk would
     *     be one; without a quotation mark
     * @return array<string, mixed>
     */
    public static function of(array $document, array $hidden, \Closure $mask): array
    {
        return array_filter([...$hidden['references'], $hidden['source'], $hidden['target']]) === []
            ? $document
            : (new self($hidden, $mask))->masked($document);
    }

    /**
     * @param  array<string, mixed>  $document
     * @return array<string, mixed>
     */
    private function masked(array $document): array
    {
        /** @var array{source?: array<string, mixed>, target?: array<string, mixed>} $sides */
        $sides = $document['sides'] ?? [];
        foreach ($sides as $side => $rules) {
            $sides[$side] = $this->steps($rules, $this->hidden[$side]);
        }
        /** @var array<string, array<string, mixed>> $references */
        $references = $document['references'] ?? [];
        foreach ($references as $name => $rules) {
            $references[$name] = $this->steps($rules, $this->hidden['references'][$name] ?? []);
        }
        /** @var list<array{source: string, target: string, crosswalk?: mixed}> $pairs */
        $pairs = $document['columnPairs'] ?? [];
        /** @var list<array{source: string, target: string}> $key */
        $key = $document['key'] ?? [];
        /** @var array<string, array<string, mixed>> $demands */
        $demands = $document['demands'] ?? [];
        $isKeyHidden = array_filter($key, $this->hides(...)) !== [];

        return [...$document, ...array_intersect_key([
            'sides' => $sides,
            'references' => $references,
            'columnPairs' => array_map(
                fn(array $pair): array => isset($pair['crosswalk']) && $this->hides($pair)
                    ? [...$pair, 'crosswalk' => $this->values($pair['crosswalk'])]
                    : $pair,
                $pairs,
            ),
            'bridges' => $isKeyHidden ? $this->values($document['bridges'] ?? []) : $document['bridges'] ?? [],
            'refusedBridges' => $isKeyHidden ? $this->values($document['refusedBridges'] ?? []) : $document['refusedBridges'] ?? [],
            'keptRows' => $this->keptRows($document, $isKeyHidden),
            'demands' => array_combine(array_keys($demands), array_map(
                fn(array $demand, string $column): array => isset($demand['allowed']) && in_array($column, $this->hidden['target'], true)
                    ? [...$demand, 'allowed' => $this->values($demand['allowed'])]
                    : $demand,
                $demands,
                array_map(strval(...), array_keys($demands)),
            )),
        ], $document)];
    }

    /**
     * A digest of a row could be tried out where all of its cells but one are known.
     *
     * @param  array<string, mixed>  $document
     * @return list<array<string, mixed>>
     */
    private function keptRows(array $document, bool $isKeyHidden): array
    {
        /** @var list<ChosenDocument> $chosen */
        $chosen = $document['keptRows'] ?? [];

        return array_map(fn(array $one): array => [
            'side' => $one['side'],
            'key' => $isKeyHidden ? $this->values($one['key']) : $one['key'],
            ...array_map($this->hidden[$one['side']] === [] ? static fn(mixed $said): mixed => $said : $this->values(...), array_diff_key(
                $one,
                ['side' => true, 'key' => true],
            )),
        ], $chosen);
    }

    /**
     * @param  array<string, mixed>  $rules  of a side or a reference
     * @param  list<string>  $hidden
     * @return array<string, mixed>
     */
    private function steps(array $rules, array $hidden): array
    {
        /** @var list<array<string, mixed>> $steps */
        $steps = $rules['preparation'] ?? [];

        return $steps === []
            ? $rules
            : [
                ...$rules,
                'preparation' => array_map(fn(array $step): array => $this->speaksOf($step, $hidden) ? $this->step($step) : $step, $steps),
            ];
    }

    /** @param array{source: string, target: string, ...} $pair */
    private function hides(array $pair): bool
    {
        return in_array($pair['source'], $this->hidden['source'], true) || in_array($pair['target'], $this->hidden['target'], true);
    }

    /**
     * @param  array<array-key, mixed>  $step
     * @param  list<string>  $names
     */
    private function speaksOf(array $step, array $names): bool
    {
        $isNamed = false;
        array_walk_recursive($step, static function (mixed $said, int|string $member) use ($names, &$isNamed): void {
            foreach ($names as $name) {
                $isNamed = $isNamed || $said === $name || ($member === 'formula' && is_string($said) && str_contains($said, $name));
            }
        });

        return $isNamed;
    }

    /**
     * @param  array<array-key, mixed>  $step
     * @return array<array-key, mixed>
     */
    private function step(array $step): array
    {
        foreach ($step as $member => $said) {
            $step[$member] = match (true) {
                in_array($member, self::OF_VALUES, true) => $this->values($said),
                // Texts in a formula may be values; its columns and functions are not.
                $member === 'formula' && is_string($said) => preg_replace_callback(
                    '/(["\'])((?:(?!\1)[^\\\\]|\\\\.)+)\1/s',
                    fn(array $text): string => $text[1].($this->mask)($text[2]).$text[1],
                    $said,
                ),
                is_array($said) => $this->step($said),
                default => $said,
            };
        }

        return $step;
    }

    /** Every text in it. */
    private function values(mixed $said): mixed
    {
        return match (true) {
            is_array($said) => array_map($this->values(...), $said),
            is_string($said) && $said !== '' => ($this->mask)($said),
            default => $said,
        };
    }
}
