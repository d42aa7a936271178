<?php

declare(strict_types=1);

namespace NineTally\Core\Advice;

/**
 * Which of several keys is most likely meant, as far as their columns tell: one that is short, stands in front, and consists of what
 * identifies.
 */
final readonly class KeyRanking
{
    /** Words of names that identify. */
    private const IDENTIFYING = '/(?:^|[^a-z])(?:id|no|nr|num|number|code|key|ref|index)(?:$|[^a-z])/i';

    /** Words of names that measure: what has them may be unique by chance, and says which row is which of none. */
    private const MEASURING =
        '/(?:^|[^a-z])(?:amount|balance|charge|cost|fee|price|rate|sum|toll|total|quantity|stock|value)(?:$|[^a-z])/i';

    /** How many hundredths of the rows more a key must join that holds what measures. */
    private const OF_QUANTITIES = 5;

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
                static fn(string $cell): bool => preg_match('/^[+-]?\d+[.,]\d+$/', $cell) === 1 ||
                    mb_strlen($cell) > 40 ||
                    LikelyValue::of($cell)->isDate,
            ),
        );

        return $asQuantity * 2 > count($examples);
    }

    /**
     * The order in which a key is offered once it is known how many rows it joins: by rows that meet one to one, then by fewer columns.
     * Of a hundredth more or less nobody can tell whether it is the key or the data.
     *
     * @param  non-empty-list<int>  $places
     * @param  float  $share  of the source's rows that meet one to one
     * @return array{int, int, float} the lower the better
     */
    public function worth(array $places, float $share): array
    {
        $measuring = array_filter($places, $this->isQuantity(...));

        return [self::OF_QUANTITIES * count($measuring) - (int) floor(100 * $share), count($places), -$this->score($places)];
    }

    private function isQuantity(int $place): bool
    {
        return $this->quantities[$place] || preg_match(self::MEASURING, str_replace('_', ' ', $this->names[$place])) === 1;
    }

    /** @param non-empty-list<int> $places */
    public function score(array $places): float
    {
        $named = array_filter(
            $places,
            fn(int $place): bool => preg_match(self::IDENTIFYING, str_replace('_', ' ', $this->names[$place])) === 1,
        );
        $asQuantity = array_filter($places, $this->isQuantity(...));

        return 1.0 -
            0.04 * (count($places) - 1) -
            (0.1 * max($places)) / max(1, count($this->names)) -
            0.06 * count($asQuantity) +
            ($named === [] ? 0.0 : 0.03);
    }
}
