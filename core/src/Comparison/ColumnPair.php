<?php

declare(strict_types=1);

namespace NineTally\Core\Comparison;

use NineTally\Core\Value\Kind;

/** A source column and the target column it must equal. */
final readonly class ColumnPair
{
    public function __construct(public string $id, public string $source, public string $target, public Kind $kind = Kind::Text) {}

    /** The id follows from the two names, so a pair that is undone and made again keeps its findings' identities and rulings. */
    public static function between(string $source, string $target): self
    {
        return new self('pair-'.substr(hash('sha256', $source."\0".$target), 0, 12), $source, $target);
    }

    /** @return array{id: string, source: string, target: string, kind: string} as the plan writes it */
    public function toArray(): array
    {
        return ['id' => $this->id, 'source' => $this->source, 'target' => $this->target, 'kind' => $this->kind->value];
    }
}
