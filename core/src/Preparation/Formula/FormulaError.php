<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation\Formula;

/** A formula has no value for a row: the cell is counted as an error and is never zero. */
final class FormulaError extends \RuntimeException
{
    public static function because(string $sentence): self
    {
        return new self($sentence);
    }
}
