<?php

declare(strict_types=1);

namespace NineTally\Core\Command;

use NineTally\Core\Intake\Reader;
use NineTally\Core\Intake\ReaderCatalogue;
use NineTally\Core\Preparation\PartStack;

/** The parts of a side or a reference, in their order, and the column that holds their labels, if there is one. */
final readonly class SideOption
{
    /** @param non-empty-list<PartOption> $parts */
    public function __construct(public array $parts, public ?string $labelColumn = null) {}

    /** Whether its one file is read as it is. */
    public function isOneFile(): bool
    {
        return count($this->parts) === 1 && $this->labelColumn === null;
    }

    public function reader(ReaderCatalogue $catalogue, ?string $delimiter): Reader
    {
        return self::open($this->parts[0], $catalogue, $delimiter);
    }

    public function stack(ReaderCatalogue $catalogue, ?string $delimiter): PartStack
    {
        return new PartStack(
            array_map(
                static fn(PartOption $part): array => ['reader' => self::open($part, $catalogue, $delimiter), 'label' => $part->label],
                $this->parts,
            ),
            $this->labelColumn,
        );
    }

    private static function open(PartOption $part, ReaderCatalogue $catalogue, ?string $delimiter): Reader
    {
        return $part->format === null
            ? $catalogue->open($part->path, $part->name, $delimiter)
            : $catalogue->openAs($part->path, $part->name, $part->format);
    }
}
