<?php

declare(strict_types=1);

namespace App\Rulings\FindingSet;

/**
 * How many findings a filter means, and where they stand in its list. Of few findings each place is kept; of many only checkpoints: places
 * before which a known number of them stands.
 */
final readonly class FilterCount
{
    /**
     * @param  list<int>|null  $places  of all findings, rising
     * @param  list<array{int, int}>  $checkpoints  a place, and how many findings stand before it; both rising, the first before all
     */
    private function __construct(public int $findings, private ?array $places, private array $checkpoints) {}

    /** @param list<int> $places of all findings, rising */
    public static function ofAll(array $places): self
    {
        return new self(count($places), $places, []);
    }

    /** @param list<array{int, int}> $checkpoints */
    public static function ofMany(int $findings, array $checkpoints): self
    {
        return new self($findings, null, $checkpoints);
    }

    /**
     * @param  int  $from  counted from 1
     * @return list<int>|null the places themselves, where they are known
     */
    public function places(int $from, int $limit): ?array
    {
        return $this->places === null ? null : array_slice($this->places, $from - 1, $limit);
    }

    /**
     * Between which places the findings of a stretch stand.
     *
     * @param  int  $from  counted from 1
     * @return array{int, int, int|null} the place to begin at, how many findings to pass by from there, and the place to end before, if
     *     there is one
     */
    public function bounds(int $from, int $limit): array
    {
        [$begin, $passed] = [0, $from - 1];
        foreach ($this->checkpoints as [$place, $before]) {
            if ($before >= $from - 1 + $limit) {
                return [$begin, $passed, $place];
            }
            if ($before < $from) {
                [$begin, $passed] = [$place, $from - 1 - $before];
            }
        }

        return [$begin, $passed, null];
    }

    public function toJson(): string
    {
        return json_encode($this->places ?? $this->checkpoints, JSON_THROW_ON_ERROR);
    }

    public static function fromJson(int $findings, string $json): self
    {
        /** @var list<int>|list<array{int, int}> $kept */
        $kept = json_decode($json, true, 4, JSON_THROW_ON_ERROR);
        $first = $kept[0] ?? null;
        if (is_array($first)) {
            /** @var list<array{int, int}> $kept */
            return self::ofMany($findings, $kept);
        }

        /** @var list<int> $kept */
        return self::ofAll($kept);
    }
}
