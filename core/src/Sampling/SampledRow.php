<?php

declare(strict_types=1);

namespace NineTally\Core\Sampling;

/** A row of which both sides have the same, drawn to be looked at. */
final readonly class SampledRow
{
    /**
     * @param  bool  $byRule  whether it agrees only for a rule that lets one of its cells pass
     * @param  string  $hash  by which it was drawn, hexadecimal
     * @param  list<string>  $key  as the source delivered it
     */
    public function __construct(public bool $byRule, public string $hash, public array $key) {}
}
