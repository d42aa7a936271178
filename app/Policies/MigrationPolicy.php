<?php

declare(strict_types=1);

namespace App\Policies;

use App\Models\Migration;
use App\Models\User;

/**
 * Who may do what in a migration. Everything that hangs on one (datasets, deliveries, tallies) is asked here; administering the
 * installation gives no right in any of them.
 */
final readonly class MigrationPolicy
{
    public function act(User $person, Migration $migration, Act $act): bool
    {
        return $act->isFor($person->roleIn($migration)) && $person->reaches($act);
    }
}
