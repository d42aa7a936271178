<?php

declare(strict_types=1);

namespace App\Policies;

use App\Models\Migration;
use App\Models\Role;
use App\Models\User;

/** Who may do what in a migration. Everything that hangs on one (datasets, deliveries, tallies) is asked here. */
final readonly class MigrationPolicy
{
    public function create(User $person): bool
    {
        return $person->is_administrator;
    }

    public function view(User $person, Migration $migration): bool
    {
        return $person->roleIn($migration) !== null;
    }

    /** Deliver, match and tally. */
    public function work(User $person, Migration $migration): bool
    {
        return $person->roleIn($migration) === Role::Analyst;
    }

    public function comment(User $person, Migration $migration): bool
    {
        return $person->roleIn($migration) !== null;
    }

    /** Have sensitive values shown. */
    public function unmask(User $person, Migration $migration): bool
    {
        return $person->roleIn($migration)?->seesSensitiveValues() ?? false;
    }

    public function rule(User $person, Migration $migration): bool
    {
        return in_array($person->roleIn($migration), [Role::Analyst, Role::DataOwner], true);
    }
}
