<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Models\Migration;
use App\Models\User;
use Illuminate\Auth\AuthenticationException;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Gate;

abstract class Controller
{
    /** Denied unless the policy allows it. */
    protected function allow(string $ability, Migration $migration): void
    {
        Gate::authorize($ability, $migration);
    }

    protected function person(Request $request): User
    {
        $person = $request->user();

        return $person instanceof User ? $person : throw new AuthenticationException;
    }
}
