<?php

declare(strict_types=1);

namespace NineTally\Core\Plan;

/** A confirmed pair of a source key and a different target key that mean the same thing. */
final readonly class Bridge
{
    /**
     * @param  list<string>  $source  the key's cells, in the order of the key
     * @param  list<string>  $target
     */
    public function __construct(public array $source, public array $target) {}

    /** @param array{source: list<string>, target: list<string>} $pair */
    public static function fromArray(array $pair): self
    {
        return new self($pair['source'], $pair['target']);
    }

    /** Both keys as one text, by which two bridges are the same. */
    public function identity(): string
    {
        return (string) json_encode([$this->source, $this->target], JSON_INVALID_UTF8_SUBSTITUTE);
    }

    /** @return array{source: list<string>, target: list<string>} */
    public function toArray(): array
    {
        return ['source' => $this->source, 'target' => $this->target];
    }
}
