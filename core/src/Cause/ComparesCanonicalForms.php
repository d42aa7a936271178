<?php

declare(strict_types=1);

namespace NineTally\Core\Cause;

use NineTally\Core\Comparison\CellPair;

/** Explains a pair when nothing is left of the difference in canonical form: what every FormRule does alone. */
trait ComparesCanonicalForms
{
    public function explain(CellPair $pair): ?Cause
    {
        return $this->canonical($pair->source) === $this->canonical($pair->target) ? new Cause([$this->id()]) : null;
    }
}
