<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation\Conditions;

/** What a condition asks of one cell. */
enum Test: string
{
    case IsBlank = 'is-blank';
    case IsNotBlank = 'is-not-blank';
    case Is = 'is';
    case IsNot = 'is-not';
    case Contains = 'contains';
    case BeginsWith = 'begins-with';
    case EndsWith = 'ends-with';
    case Matches = 'matches';
    case IsOneOf = 'is-one-of';
    case IsNotOneOf = 'is-not-one-of';
    case LessThan = 'less-than';
    case AtMost = 'at-most';
    case MoreThan = 'more-than';
    case AtLeast = 'at-least';
    case Before = 'before';
    case OnOrBefore = 'on-or-before';
    case After = 'after';
    case OnOrAfter = 'on-or-after';
    /** The column holds the first day, the column "until" the last one; a blank end is open. */
    case ValidOn = 'valid-on';

    public function words(): string
    {
        return str_replace('-', ' ', $this->value);
    }

    public function takesValue(): bool
    {
        return ! in_array($this, [self::IsBlank, self::IsNotBlank, self::IsOneOf, self::IsNotOneOf], true);
    }

    public function isOfNumbers(): bool
    {
        return in_array($this, [self::LessThan, self::AtMost, self::MoreThan, self::AtLeast], true);
    }

    public function isOfDates(): bool
    {
        return in_array($this, [self::Before, self::OnOrBefore, self::After, self::OnOrAfter, self::ValidOn], true);
    }
}
