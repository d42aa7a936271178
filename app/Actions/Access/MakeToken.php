<?php

declare(strict_types=1);

namespace App\Actions\Access;

use App\Models\TrailAct;
use App\Models\User;
use App\Policies\Act;
use Carbon\CarbonImmutable;
use Illuminate\Contracts\Hashing\Hasher;
use Illuminate\Validation\ValidationException;
use Laravel\Sanctum\NewAccessToken;

/** Gives a program a token that speaks in somebody's name: for the acts that are said, and until a day. */
final readonly class MakeToken
{
    public function __construct(private Hasher $hasher, private Trail $trail) {}

    /**
     * @param  list<Act>  $scopes  of {@see Act::ofTokens()}
     * @return NewAccessToken whose text is told once
     *
     * @throws ValidationException when the password is not right
     */
    public function __invoke(
        User $person,
        #[\SensitiveParameter]
        string $password,
        string $name,
        array $scopes,
        CarbonImmutable $lastDay,
    ): NewAccessToken {
        if (! $this->hasher->check($password, $person->getAuthPassword())) {
            throw ValidationException::withMessages(['password' => 'This is not your password now.']);
        }
        $words = array_map(static fn(Act $act): string => $act->value, $scopes);
        $token = $person->createToken($name, $words, $lastDay->endOfDay());
        $this->trail->note(
            TrailAct::MadeToken,
            $person,
            sprintf('"%s" for %s, until %s', $name, implode(', ', $words), $lastDay->toDateString()),
        );

        return $token;
    }
}
