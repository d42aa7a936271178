<?php

declare(strict_types=1);

namespace NineTally\Core\Plan;

use NineTally\Core\Row\Side;

/** A confirmed pair of a source key and a different target key that mean the same thing. */
final readonly class Bridge
{
    /**
     * @param  list<string>  $source  the key's cells, in the order of the key
     * @param  list<string>  $target
     * @param  Side|null  $right  whose key is right, where somebody has said so: it is what the other side has to be corrected to
     */
    public function __construct(public array $source, public array $target, public ?Side $right = null) {}

    /** @param array{source: list<string>, target: list<string>, right?: string} $pair */
    public static function fromArray(array $pair): self
    {
        return new self($pair['source'], $pair['target'], Side::tryFrom($pair['right'] ?? ''));
    }

    public function withRight(?Side $right): self
    {
        return new self($this->source, $this->target, $right);
    }

    /** Both keys as one text, by which two bridges are the same. */
    public function identity(): string
    {
        return (string) json_encode([$this->source, $this->target], JSON_INVALID_UTF8_SUBSTITUTE);
    }

    /** @return array{source: list<string>, target: list<string>, right?: 'source'|'target'} */
    public function toArray(): array
    {
        return ['source' => $this->source, 'target' => $this->target, ...$this->right === null ? [] : ['right' => $this->right->value]];
    }
}
