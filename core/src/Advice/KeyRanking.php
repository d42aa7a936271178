<?php

declare(strict_types=1);

namespace NineTally\Core\Advice;

/**
 * Which of several keys is most likely meant: one that meets most rows of the other side, is short, stands in front, and consists of what
 * identifies.
 */
final readonly class KeyRanking
{
    /** Words of names that identify. */
    private const IDENTIFYING = '/(?:^|[^a-z])(?:id|no|nr|num|number|code|key|ref|index)(?:$|[^a-z])/i';

    /**
     * @param  list<string>  $names  of all column pairs that were looked at, in their order
     * @param  list<bool>  $quantities  whether a pair holds what is a quantity (decimals, days) rather than what identifies
     */
    public function __construct(private array $names, private array $quantities) {}

    /** Whether most of some cells are quantities: decimals, days, or sentences. */
    public static function quantitiesIn(string ...$examples): bool
    {
        $asQuantity = count(
            array_filter(
                $examples,
                static fn(string $cell): bool => preg_match(
                    '/^[+-]?\d+[.,]\d+$|^\d{4}-\d\d-\d\d|^\d{1,2}[.\/]\d{1,2}[.\/]\d{2,4}$/',
                    $cell,
                ) === 1 || mb_strlen($cell) > 40,
            ),
        );

        return $asQuantity * 2 > count($examples);
    }

    /**
     * @param  non-empty-list<int>  $places
     * @param  float|null  $meets  the share of rows that meet one of the other side; null where that is not known yet
     */
    public function score(array $places, ?float $meets = null): float
    {
        $named = array_filter(
            $places,
            fn(int $place): bool => preg_match(self::IDENTIFYING, str_replace('_', ' ', $this->names[$place])) === 1,
        );
        $asQuantity = array_filter($places, fn(int $place): bool => $this->quantities[$place]);

        return ($meets ?? 1.0) -
            0.04 * (count($places) - 1) -
            (0.1 * max($places)) / max(1, count($this->names)) -
            0.06 * count($asQuantity) +
            ($named === [] ? 0.0 : 0.03);
    }
}
