<?php

declare(strict_types=1);

namespace App\Http\Controllers\Access;

use App\Actions\Access\AcceptInvitation;
use App\Actions\Access\BeginSession;
use App\Actions\Access\GiveRole;
use App\Actions\Access\InvitePerson;
use App\Actions\Access\LockPerson;
use App\Http\Controllers\Controller;
use App\Http\Controllers\TakenTable;
use App\Http\Requests\Access\AcceptRequest;
use App\Http\Requests\Access\InviteRequest;
use App\Http\Resources\PersonResource;
use App\Mail\InvitationMail;
use App\Models\Invitation;
use App\Models\Migration;
use App\Models\Role;
use App\Models\RoleEntry;
use App\Models\TrailAct;
use App\Models\User;
use App\Queries\Access\People;
use App\Queries\Access\TrailOfMigration;
use Carbon\CarbonImmutable;
use Illuminate\Contracts\Mail\Mailer;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Str;
use Illuminate\Validation\Rule;
use Symfony\Component\HttpFoundation\StreamedResponse;

/** People and their roles, as an administrator keeps them. */
final class PeopleController extends Controller
{
    public function index(Request $request, People $people): JsonResponse
    {

        return response()->json([
            'items' => $people->all(),
            'invitations' => $people->invitations(),
            'history' => $people->history(),
            'migrations' => Migration::query()->orderBy('name')->get(['id', 'name'])->map->only(['id', 'name'])->all(),
        ]);
    }

    public function invite(InviteRequest $request, InvitePerson $invitePerson, Mailer $mailer): JsonResponse
    {
        [$invitation, $token] = $invitePerson(
            $request->name(),
            $request->email(),
            $request->migration(),
            $request->role(),
            $request->isAdministrator(),
            $this->person($request),
        );
        $link = url("/invitation/{$token}");
        $mailer->to($invitation->email)->send(new InvitationMail($invitation, $link));

        return response()->json(['id' => $invitation->id, 'link' => $link], Response::HTTP_CREATED);
    }

    public function withdraw(Request $request, Invitation $invitation): Response
    {
        $invitation->ended_at === null && $invitation->update(['ended_at' => now()]);

        return response()->noContent();
    }

    /** For who comes by a link: whom it is for. */
    public function invitation(string $token): JsonResponse
    {
        $invitation = AcceptInvitation::open($token);

        return response()->json([
            'name' => $invitation->name,
            'email' => $invitation->email,
            'by' => $invitation->by->name,
            'migration' => $invitation->migration?->name,
            'role' => $invitation->role?->value,
        ]);
    }

    public function accept(AcceptRequest $request, string $token, AcceptInvitation $accept, BeginSession $beginSession): PersonResource
    {
        $person = $accept($token, $request->name(), $request->password());
        $beginSession($request, $person);

        return PersonResource::make($person);
    }

    public function give(Request $request, Migration $migration, User $person, GiveRole $giveRole): Response
    {
        $administrator = $this->person($request);
        $request->validate(['role' => ['present', 'nullable', Rule::enum(Role::class)]]);
        $giveRole($migration, $person, $request->enum('role', Role::class), $administrator);

        return response()->noContent();
    }

    public function lock(Request $request, User $person, LockPerson $lockPerson): Response
    {
        $administrator = $this->person($request);
        $request->validate(['isLocked' => ['required', 'boolean'], 'heir' => ['present', 'nullable', 'integer', 'exists:users,id']]);
        $heir = $request->input('heir') === null ? null : User::query()->findOrFail($request->integer('heir'));
        $lockPerson($person, $request->boolean('isLocked'), $heir, $administrator);

        return response()->noContent();
    }

    public function trail(Request $request, Migration $migration): JsonResponse
    {
        $request->validate(['before' => ['integer', 'min:1']]);

        return response()->json([
            ...$this->filtered($request, $migration)->page($request->has('before') ? $request->integer('before') : null),
            'people' => array_values(
                User::query()
                    ->whereIn('id', RoleEntry::query()->where('migration_id', $migration->id)->select('user_id'))
                    ->orderBy('name')
                    ->get()
                    ->map(static fn(User $person): array => ['id' => $person->id, 'name' => $person->name])
                    ->all(),
            ),
        ]);
    }

    /** As CSV, with the digests of the chain. */
    public function takeTrail(Request $request, Migration $migration): StreamedResponse
    {
        return TakenTable::as($request, $this->filtered($request, $migration)->table(), Str::slug($migration->name).'-trail');
    }

    private function filtered(Request $request, Migration $migration): TrailOfMigration
    {
        $request->validate([
            'act' => [Rule::enum(TrailAct::class)],
            'person' => ['integer'],
            'from' => ['date_format:Y-m-d'],
            'until' => ['date_format:Y-m-d'],
        ]);
        $day = static fn(string $name): ?CarbonImmutable => $request->has($name)
            ? CarbonImmutable::parse($request->string($name)->toString(), 'UTC')
            : null;

        return new TrailOfMigration(
            $migration->id,
            $request->enum('act', TrailAct::class),
            $request->has('person') ? $request->integer('person') : null,
            $day('from'),
            $day('until'),
        );
    }
}
