<?php

declare(strict_types=1);

namespace NineTally\Core\Wording;

/** A warning of a tally as facts, so that it can be kept, masked and said in any language. */
final readonly class Warning
{
    /** @param array<string, string|int> $facts as its kind names them */
    public function __construct(public WarningKind $kind, public array $facts) {}

    /** @return array{kind: string, facts: array<string, string|int>} */
    public function toArray(): array
    {
        return ['kind' => $this->kind->value, 'facts' => $this->facts];
    }

    /** @param array{kind: string, facts: array<string, string|int>} $document */
    public static function fromArray(array $document): self
    {
        return new self(WarningKind::from($document['kind']), $document['facts']);
    }
}
