<?php

declare(strict_types=1);

namespace NineTally\Core\Advice;

/** Finds the key of the other side that is likest to one, by the edits that would make their cells equal (Levenshtein 1966). */
final readonly class LikestKey
{
    /** Less than that is no likeness. */
    private const LEAST = 0.3;

    private const LONGEST = 60;

    /** @param list<list<string>> $among keys of the other side */
    public function __construct(private array $among, private BareCells $bare) {}

    /**
     * @param  list<string>  $key
     * @return list<string>|null null where none is like it
     */
    public function to(array $key): ?array
    {
        [$best, $likest] = [self::LEAST, null];
        foreach ($this->among as $other) {
            $likeness = 0.0;
            foreach ($key as $column => $cell) {
                $likeness += self::likeness($this->bare->one($cell), $this->bare->one($other[$column]));
            }
            if ($likeness / count($key) > $best) {
                [$best, $likest] = [$likeness / count($key), $other];
            }
        }

        return $likest;
    }

    private static function likeness(string $one, string $other): float
    {
        if ($one === $other) {
            return 1.0;
        }
        $longest = max(strlen($one), strlen($other));

        return $longest === 0 || $longest > self::LONGEST ? 0.0 : 1 - levenshtein($one, $other) / $longest;
    }
}
