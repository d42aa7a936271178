<?php

declare(strict_types=1);

namespace App\Actions\Review;

/**
 * The crosswalk of a column in a draft: of a pair its own; of a column of the key, which has none, the step that exchanges its values, the
 * last of the source.
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
        if ($pair['isOfKey']) {
            $steps = $this->steps($document);
            $last = $steps === [] ? [] : $steps[count($steps) - 1];

            return self::isCrosswalkOf($last, $pair['source']) ? $last['entries'] ?? [] : [];
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

        return $pair['isOfKey'] ? $this->ofKey($document, $pair['source'], $now) : [...$document, 'columnPairs' => array_map(
            static fn(array $known): array => $known['source'] === $pair['source']
                ? array_filter(['crosswalk' => $now]) + array_diff_key($known, ['crosswalk' => true])
                : $known,
            $this->pairs($document),
        )];
    }

    /**
     * @param  array<string, mixed>  $document
     * @param  list<Entry>  $entries
     * @return array<string, mixed>
     */
    private function ofKey(array $document, string $column, array $entries): array
    {
        $steps = $this->steps($document);
        $last = $steps === [] ? [] : $steps[count($steps) - 1];
        $isThere = self::isCrosswalkOf($last, $column);
        $others = $isThere ? array_slice($steps, 0, -1) : $steps;
        $step = ['entries' => $entries] + ($isThere ? $last : [
            'id' => 'near-'.bin2hex(random_bytes(self::ID_BYTES)), 'kind' => 'crosswalk', 'column' => $column,
        ]);
        /** @var array<string, array<string, mixed>> $sides */
        $sides = $document['sides'] ?? [];

        return [
            'sides' => ['source' => ['preparation' => $entries === [] ? $others : [...$others, $step]] + ($sides['source'] ?? [])] + $sides,
        ] + $document;
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
