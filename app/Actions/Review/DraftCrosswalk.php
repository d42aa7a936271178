<?php

declare(strict_types=1);

namespace App\Actions\Review;

/**
 * The crosswalk of a column in a draft: of a pair its own; of a column of the key, which has none, the step that exchanges its values, the
 * last of the source; of a column that is held against a reference the step before the one that looks up by it.
 *
 * @phpstan-import-type Pair from NearValueLooks
 * @phpstan-import-type Entry from NearValueLooks
 */
final readonly class DraftCrosswalk
{
    private const ID_BYTES = 4;

    /**
     * @param  array<string, mixed>  $document
     * @param  Pair  $pair
     * @return list<Entry>
     */
    public function entries(array $document, array $pair): array
    {
        if (self::isStep($pair)) {
            $steps = $this->steps($document);
            $before = $steps[self::place($steps, $pair) - 1] ?? [];

            return self::isCrosswalkOf($before, $pair['source']) ? $before['entries'] ?? [] : [];
        }
        foreach ($this->pairs($document) as $known) {
            if ($known['source'] === $pair['source']) {
                return $known['crosswalk'] ?? [];
            }
        }

        return [];
    }

    /**
     * @param  array<string, mixed>  $document
     * @param  Pair  $pair
     * @param  list<Entry>  $entries
     * @param  bool  $isAdded  else they are taken out
     * @return array<string, mixed>
     */
    public function with(array $document, array $pair, array $entries, bool $isAdded): array
    {
        $values = array_fill_keys(array_column($entries, 'source'), true);
        $others = array_values(array_filter(
            $this->entries($document, $pair),
            static fn(array $entry): bool => ! isset($values[$entry['source']]),
        ));
        $now = $isAdded ? [...$others, ...$entries] : $others;

        return self::isStep($pair) ? $this->asStep($document, $pair, $now) : [...$document, 'columnPairs' => array_map(
            static fn(array $known): array => $known['source'] === $pair['source']
                ? array_filter(['crosswalk' => $now]) + array_diff_key($known, ['crosswalk' => true])
                : $known,
            $this->pairs($document),
        )];
    }

    /**
     * The step whose values are held against a reference: what comes into it is looked at.
     *
     * @param  array<string, mixed>  $document
     * @param  Pair  $pair
     */
    public function stepBehind(array $document, array $pair): ?string
    {
        $steps = $this->steps($document);
        $place = self::place($steps, $pair);
        $isThere = self::isCrosswalkOf($steps[$place - 1] ?? [], $pair['source']);
        $id = $steps[$isThere ? $place - 1 : $place]['id'] ?? null;

        return is_string($id) ? $id : null;
    }

    /** @param Pair $pair */
    private static function isStep(array $pair): bool
    {
        return $pair['isOfKey'] || ($pair['reference'] ?? null) !== null;
    }

    /**
     * @param  list<array<string, mixed>>  $steps
     * @param  Pair  $pair
     * @return int the place that its crosswalk stands before
     */
    private static function place(array $steps, array $pair): int
    {
        foreach (($pair['reference'] ?? null) === null ? [] : $steps as $place => $step) {
            /** @var list<array{column: string, ...}> $on */
            $on = $step['on'] ?? [];
            if (in_array($pair['source'], array_column($on, 'column'), true)) {
                return $place;
            }
        }

        return count($steps);
    }

    /**
     * @param  array<string, mixed>  $document
     * @param  Pair  $pair
     * @param  list<Entry>  $entries
     * @return array<string, mixed>
     */
    private function asStep(array $document, array $pair, array $entries): array
    {
        $steps = $this->steps($document);
        $place = self::place($steps, $pair);
        $before = $steps[$place - 1] ?? [];
        $isThere = self::isCrosswalkOf($before, $pair['source']);
        $step = ['entries' => $entries] + ($isThere ? $before : [
            'id' => 'near-'.bin2hex(random_bytes(self::ID_BYTES)), 'kind' => 'crosswalk', 'column' => $pair['source'],
        ]);
        array_splice($steps, $isThere ? $place - 1 : $place, $isThere ? 1 : 0, $entries === [] ? [] : [$step]);
        /** @var array<string, array<string, mixed>> $sides */
        $sides = $document['sides'] ?? [];

        return ['sides' => ['source' => ['preparation' => $steps] + ($sides['source'] ?? [])] + $sides] + $document;
    }

    /** @param array<string, mixed> $step */
    private static function isCrosswalkOf(array $step, string $column): bool
    {
        return ($step['kind'] ?? '') === 'crosswalk' && ($step['column'] ?? '') === $column && ! ($step['off'] ?? false);
    }

    /**
     * @param  array<string, mixed>  $document
     * @return list<array{entries?: list<Entry>, ...}>
     */
    private function steps(array $document): array
    {
        /** @var array{source?: array{preparation?: list<array{entries?: list<Entry>, ...}>}} $sides */
        $sides = $document['sides'] ?? [];

        return $sides['source']['preparation'] ?? [];
    }

    /**
     * @param  array<string, mixed>  $document
     * @return list<array{source: string, crosswalk?: list<Entry>, ...}>
     */
    private function pairs(array $document): array
    {
        /** @var list<array{source: string, crosswalk?: list<Entry>, ...}> $pairs */
        $pairs = $document['columnPairs'] ?? [];

        return $pairs;
    }
}
