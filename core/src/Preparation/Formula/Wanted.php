<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation\Formula;

/** As what a formula takes the cell of a column: a cell may be written in a declared form, and formulas count with the plain one. */
enum Wanted
{
    /** As it was delivered; a blank token is blank. */
    case Text;

    case Number;

    case Date;

    /** A number or a date where it can be read as one, else as it was delivered. */
    case Value;
}
