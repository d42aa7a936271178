<?php

declare(strict_types=1);

namespace App\Http\Controllers\Access;

use App\Actions\Access\MakeFirstPerson;
use App\Http\Controllers\Controller;
use App\Http\Requests\Access\FirstPersonRequest;
use App\Http\Resources\PersonResource;
use Illuminate\Contracts\Auth\StatefulGuard;

final class FirstPersonController extends Controller
{
    public function store(FirstPersonRequest $request, MakeFirstPerson $makeFirstPerson, StatefulGuard $guard): PersonResource
    {
        $person = $makeFirstPerson($request->code(), $request->name(), $request->email(), $request->password());
        $guard->login($person);
        $request->session()->regenerate();

        return PersonResource::make($person);
    }
}
