<?php

declare(strict_types=1);

namespace App\Models;

/** What the trail tells of. */
enum TrailAct: string
{
    case SignedIn = 'signed-in';
    case Failed = 'failed';
    case SignedOut = 'signed-out';
    case Refused = 'refused';
    case TookAway = 'took-away';
    case Unmasked = 'unmasked';
    case Invited = 'invited';
    case Joined = 'joined';
    case GaveRole = 'gave-role';
    case EndedRole = 'ended-role';
    case Locked = 'locked';
    case Unlocked = 'unlocked';
    case ChangedPassword = 'changed-password';
    case EndedSession = 'ended-session';
    case MadeToken = 'made-token';
    case EndedToken = 'ended-token';
    case Signed = 'signed';
    case EndedSignOff = 'ended-sign-off';
    case Waived = 'waived';
    case ChangedTerms = 'changed-terms';
    case Delivered = 'delivered';
    case BeganTally = 'began-tally';
    case Ruled = 'ruled';
    case UndidRuling = 'undid-ruling';
    case SetLimits = 'set-limits';
    case Linked = 'linked';
    case RevokedLink = 'revoked-link';
    case AddedMigration = 'added-migration';
    case AddedDataset = 'added-dataset';
    case ChangedDataset = 'changed-dataset';
    case MadePlan = 'made-plan';
    case KeptPlan = 'kept-plan';
    case Explained = 'explained';
    case NamedTally = 'named-tally';
    case CancelledRun = 'cancelled-run';
    case Commented = 'commented';
    case AssignedDefect = 'assigned-defect';
    case MadeCorrections = 'made-corrections';
    case Published = 'published';
    case DrewEyeCheck = 'drew-eye-check';
    case GaveEyeCheck = 'gave-eye-check';
    case LookedByEye = 'looked-by-eye';
    case WroteInReport = 'wrote-in-report';
    case Purged = 'purged';
    case RemovedPacks = 'removed-packs';
    case RotatedKey = 'rotated-key';
    case KeptConnection = 'kept-connection';
    case RemovedConnection = 'removed-connection';
    case KeptSchedule = 'kept-schedule';
    case ChangedSecondFactor = 'changed-second-factor';
}
