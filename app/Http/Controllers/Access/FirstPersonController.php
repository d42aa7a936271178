<?php

declare(strict_types=1);

namespace App\Http\Controllers\Access;

use App\Actions\Access\BeginSession;
use App\Actions\Access\MakeFirstPerson;
use App\Http\Controllers\Controller;
use App\Http\Requests\Access\FirstPersonRequest;
use App\Http\Resources\PersonResource;

final class FirstPersonController extends Controller
{
    public function store(FirstPersonRequest $request, MakeFirstPerson $makeFirstPerson, BeginSession $beginSession): PersonResource
    {
        $person = $makeFirstPerson($request->code(), $request->name(), $request->email(), $request->password());
        $beginSession($request, $person);

        return PersonResource::make($person);
    }
}
