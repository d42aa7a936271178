<?php

declare(strict_types=1);

namespace App\Models;

/** What somebody does to a sign-off. */
enum SignatureAct: string
{
    case Prepared = 'prepared';
    case Checked = 'checked';
    case Accepted = 'accepted';
    case Returned = 'returned';
    case Withdrawn = 'withdrawn';

    /** Whose signature it is; null for what takes one back. */
    public function role(): ?Role
    {
        return match ($this) {
            self::Prepared => Role::Analyst,
            self::Checked => Role::TestManager,
            self::Accepted => Role::DataOwner,
            self::Returned, self::Withdrawn => null,
        };
    }

    /** What is asked of the person. */
    public function verb(): string
    {
        return match ($this) {
            self::Prepared => 'prepare',
            self::Checked => 'check',
            self::Accepted => 'accept',
            self::Returned => 'return',
            self::Withdrawn => 'withdraw',
        };
    }
}
