<?php

declare(strict_types=1);

namespace NineTally\Core\Matching;

use Brick\Math\BigDecimal;
use NineTally\Core\Comparison\CellClass;
use NineTally\Core\Comparison\Pattern;
use NineTally\Core\Intake\Batch;

/** Cells of one column pair that one cause lets pass, counted, with the first distinct value pairs in source order. */
final class ForgivenPattern
{
    public const EXAMPLES = 20;

    public int $cells = 0;

    public ?BigDecimal $largest = null;

    public ?BigDecimal $net = null;

    /** @var array<string, int> the values joined by 0xFF => the first line on which they stand; those with the lowest lines are kept */
    private array $examples = [];

    /** From this line on no cell is an example any more. */
    public int $lastLine = PHP_INT_MAX;

    /** @param array<string, string|int> $facts */
    public function __construct(public readonly string $cause, public readonly array $facts) {}

    /** A cell that stands early enough to be an example, or whose distance counts. */
    public function keep(int $line, string $source, string $target, ?BigDecimal $apart): void
    {
        if ($apart !== null) {
            $this->addApart($apart, $apart);
        }
        if ($line < $this->lastLine) {
            $this->addExample($line, $source.Batch::CELL_END.$target);
        }
    }

    public function merge(self $other): void
    {
        $this->cells += $other->cells;
        if ($other->largest !== null && $other->net !== null) {
            $this->addApart($other->largest, $other->net);
        }
        foreach ($other->examples as $values => $line) {
            $this->addExample($line, (string) $values);
        }
    }

    /** @return list<array{source: string, target: string}> in source order */
    public function examples(): array
    {
        asort($this->examples);

        return array_map(static function (int|string $values): array {
            [$source, $target] = explode(Batch::CELL_END, (string) $values, 2);

            return ['source' => $source, 'target' => $target];
        }, array_keys(array_slice($this->examples, 0, self::EXAMPLES, true)));
    }

    private function addApart(BigDecimal $largest, BigDecimal $net): void
    {
        $this->largest = $this->largest === null || $largest->abs()->isGreaterThan($this->largest) ? $largest->abs() : $this->largest;
        $this->net = $this->net === null ? $net : $this->net->plus($net);
    }

    private function addExample(int $line, string $values): void
    {
        $this->examples[$values] = min($line, $this->examples[$values] ?? $line);
        if (count($this->examples) > 2 * self::EXAMPLES) {
            asort($this->examples);
            $this->examples = array_slice($this->examples, 0, self::EXAMPLES, true);
            // From now on only what stands before the last of these can be among the first.
            $this->lastLine = (int) end($this->examples);
        }
    }

    /** As one pattern among those of a tally, with what the tolerance let pass. */
    public function pattern(int $number, int $pairPosition): Pattern
    {
        $apart = $this->largest === null ? [] : [
            'largest' => (string) $this->largest->stripTrailingZeros(),
            'net' => (string) $this->net?->stripTrailingZeros(),
        ];

        return new Pattern(
            $number,
            $pairPosition,
            CellClass::Forgiven,
            $this->cause,
            $this->facts + $apart,
            $this->cells,
            $this->examples(),
        );
    }
}
