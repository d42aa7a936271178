<?php

declare(strict_types=1);

namespace NineTally\Core\Totals;

use NineTally\Core\Row\Side;

/**
 * What one of a quantity is worth, which makes an amount of it: a column of the same row, looked up or not, or one number for all.
 *
 * @phpstan-type UnitDocument array{source?: string, target?: string, constant?: string}
 */
final readonly class UnitValue
{
    /** @param string|null $constant an exact decimal with a point; null where columns have it */
    private function __construct(private ?string $source, private ?string $target, public ?string $constant) {}

    /** @param UnitDocument $document */
    public static function fromArray(array $document): self
    {
        return new self($document['source'] ?? null, $document['target'] ?? null, $document['constant'] ?? null);
    }

    /** @return UnitDocument */
    public function toArray(): array
    {
        return array_filter(
            ['source' => $this->source, 'target' => $this->target, 'constant' => $this->constant],
            static fn(?string $said): bool => $said !== null,
        );
    }

    public function column(Side $side): ?string
    {
        return $side === Side::Source ? $this->source : $this->target;
    }
}
