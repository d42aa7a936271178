<?php

declare(strict_types=1);

namespace NineTally\Core\Comparison;

use Brick\Math\BigDecimal;

/**
 * What the differences of cells come to: exact, those upwards apart from those downwards, and those of nought counted.
 *
 * @phpstan-type WrittenWorth array{up: array{cells: int, sum: string, most: string}, down: array{cells: int, sum: string, most: string},
 *     nought: int, net: string, largest: string}
 */
final readonly class Worth
{
    public function __construct(
        public int $cellsUp,
        public BigDecimal $up,
        public BigDecimal $mostUp,
        public int $cellsDown,
        public BigDecimal $down,
        public BigDecimal $mostDown,
        public int $noughts,
    ) {}

    public static function none(): self
    {
        $nought = BigDecimal::zero();

        return new self(0, $nought, $nought, 0, $nought, $nought, 0);
    }

    /** @param WrittenWorth $written */
    public static function fromArray(array $written): self
    {
        ['up' => $up, 'down' => $down] = $written;

        return new self(
            $up['cells'],
            BigDecimal::of(self::number($up['sum'])),
            BigDecimal::of(self::number($up['most'])),
            $down['cells'],
            BigDecimal::of(self::number($down['sum'])),
            BigDecimal::of(self::number($down['most'])),
            $written['nought'],
        );
    }

    public function plus(self $other): self
    {
        return new self(
            $this->cellsUp + $other->cellsUp,
            $this->up->plus($other->up),
            BigDecimal::max($this->mostUp, $other->mostUp),
            $this->cellsDown + $other->cellsDown,
            $this->down->plus($other->down),
            BigDecimal::min($this->mostDown, $other->mostDown),
            $this->noughts + $other->noughts,
        );
    }

    /** With a difference, of nought or not. */
    public function cells(): int
    {
        return $this->cellsUp + $this->cellsDown + $this->noughts;
    }

    public function net(): BigDecimal
    {
        return $this->up->plus($this->down);
    }

    /** The difference farthest from nought; of two that are as far, the one upwards. */
    public function largest(): BigDecimal
    {
        return $this->mostDown->abs()->isGreaterThan($this->mostUp) ? $this->mostDown : $this->mostUp;
    }

    /** @return WrittenWorth exact decimals with one number of places */
    public function toArray(): array
    {
        $numbers = [$this->up, $this->mostUp, $this->down, $this->mostDown];
        $places = max(array_map(static fn(BigDecimal $number): int => $number->getScale(), $numbers));
        $written = static fn(BigDecimal $number): string => (string) $number->toScale($places);

        return [
            'up' => ['cells' => $this->cellsUp, 'sum' => $written($this->up), 'most' => $written($this->mostUp)],
            'down' => ['cells' => $this->cellsDown, 'sum' => $written($this->down), 'most' => $written($this->mostDown)],
            'nought' => $this->noughts,
            'net' => $written($this->net()),
            'largest' => $written($this->largest()),
        ];
    }

    /** @return numeric-string */
    private static function number(string $written): string
    {
        return is_numeric($written) ? $written : throw new \UnexpectedValueException('A difference that was kept is no number.');
    }
}
